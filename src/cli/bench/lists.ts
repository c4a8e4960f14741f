import { readRoster } from "@/core/roster/roster";
import { handoutsOf } from "@/server/courses";
import { closeDatabase, one, rows } from "@/server/database";
import { classOn } from "@/server/handouts";
import { migrate } from "@/server/migrate";
import { knownOf, takeIn } from "@/server/roster";
import { hashPassword, personByPassword, type Person } from "@/server/people";

/** Five courses of thirty students, twenty handouts each, twenty tries each: how long a page's lists take. */
const RUNS = 100;
await migrate();
await rows(`insert into courses (title) select 'Course ' || c from generate_series(1, 5) c`);
await rows(`insert into people (name, email, password_hash)
  select 'Student ' || p, 'list-' || p || '@elsewhere.example', 'none' from generate_series(1, 150) p`);
await rows(`insert into enrolments (course_id, person_id, role)
  select c.id, p.id, 'student' from (select id, row_number() over () as n from courses) c
  join (select id, row_number() over () as n from people) p on (p.n - 1) / 30 = c.n - 1`);
await rows(`insert into exercises (course_id, document) select id, '{}' from courses`);
await rows(`insert into handouts (exercise_id, course_id, exercise, revision, due_at)
  select x.id, x.course_id, jsonb_build_object('number', 'L-' || h, 'title', 'Handout ' || h), 1,
    now() + h * interval '1 day'
  from exercises x, generate_series(1, 20) h`);
await rows(`insert into submissions (handout_id, person_id, attempt, document)
  select h.id, e.person_id, a, '{"steps": []}' from handouts h
  join enrolments e on e.course_id = h.course_id, generate_series(1, 20) a`);
await rows(`insert into checks (submission_id, state, points, out_of)
  select id, 'checked', 10 + attempt % 10, 20 from submissions`);
// and thirty-five courses more, 2,000 people in all, with an instructor each and somebody who looks after the server
await rows(`with c as (insert into courses (title) select 'Other ' || c from generate_series(1, 35) c returning id),
  p as (insert into people (name, email) select 'Person ' || p, 'other-' || p || '@elsewhere.example'
    from generate_series(1, 1850) p returning id)
  insert into enrolments (course_id, person_id, role)
  select c.id, p.id, 'student' from (select id, row_number() over () as n from c) c
  join (select id, row_number() over () as n from p) p on p.n % 35 = c.n - 1`);
await rows(`update enrolments e set role = 'instructor' where person_id in
  (select min(person_id::text)::uuid from enrolments group by course_id)`);
await rows("update people set administrator = true where email = 'other-1@elsewhere.example'");
await rows("analyze");

const { n } = await one<{ n: number }>("select count(*)::int as n from submissions");
const course = await one<{ id: string }>("select id from courses limit 1");
const student = await one<Person>(
  "select p.id, p.name, p.email from people p join enrolments e on e.person_id = p.id where e.course_id = $1 limit 1",
  [course.id],
);
const handout = await one<{ id: string }>("select id from handouts where course_id = $1 limit 1", [course.id]);

async function p95(work: () => Promise<unknown>): Promise<number> {
  const took: number[] = [];
  for (let i = 0; i < RUNS; i++) {
    const began = performance.now();
    await work();
    took.push(performance.now() - began);
  }
  return took.sort((a, b) => a - b)[Math.floor(0.95 * RUNS)] ?? 0;
}
const tell = (metric: string, ms: number) => process.stdout.write(`lists ${metric}: ${ms.toFixed(1)} ms\n`);
process.stdout.write(`lists submissions: ${n}\n`);
tell("handouts of a course, p95", await p95(() => handoutsOf(course.id, student)));
tell("class on a handout, p95", await p95(() => classOn(handout.id)));
const roster = [
  ["name", "email", "group"],
  ...Array.from({ length: 500 }, (_, i) => [`New ${i}`, `new-${i}@elsewhere.example`, `group ${i % 5}`]),
];
const timed = async (work: () => Promise<unknown>) => {
  const began = performance.now();
  await work();
  return performance.now() - began;
};
const preview = async () => {
  const { lines } = readRoster(roster);
  await knownOf(
    course.id,
    lines.map((l) => l.email),
  );
};
tell("a roster of 500 looked at", await timed(preview));
tell("a roster of 500 taken in", await timed(() => takeIn({ id: course.id, title: "A" }, readRoster(roster).lines)));
// sixty at the door at once: how long somebody else's question takes meanwhile
await rows("update people set password_hash = $1", [await hashPassword("a word")]);
let isOver = false;
const others: number[] = [];
const entering = Promise.all(
  Array.from({ length: 60 }, (_, i) => personByPassword(`list-${i + 1}@elsewhere.example`, "a word")),
).finally(() => (isOver = true));
while (!isOver) {
  const began = performance.now();
  await handoutsOf(course.id, student);
  others.push(performance.now() - began);
  await new Promise((r) => setTimeout(r, 20));
}
const came = (await entering).filter((p) => p !== undefined).length;
process.stdout.write(`lists signed in: ${came} of 60\n`);
tell("others while 60 sign in, p50", others.sort((a, b) => a - b)[others.length >> 1] ?? 0);
await closeDatabase();
