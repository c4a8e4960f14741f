import { checkSubmission } from "@/core/check/check";
import { prepareExercise } from "@/core/check/exercise/prepare";
import { gradeReport } from "@/core/grade/grade";
import { readRoster } from "@/core/roster/roster";
import { footExercise } from "@/demo/exercises";
import { tripodFoot } from "@/demo/parts";
import { handoutsOf } from "@/server/courses/courses";
import { closeDatabase, one, rows } from "@/server/database";
import { classOn } from "@/server/handouts/handouts";
import { migrate } from "@/server/upkeep/migrate";
import { packPicture } from "@/server/files/pictures";
import { knownOf, takeIn } from "@/server/people/roster";
import { hashPassword, personByPassword, type Person } from "@/server/people/people";
import { openNodeKernel } from "@/worker/kernel";

/** Twenty courses of twenty-five students, twenty handouts each, six tries each: how long a page's lists take. */
const RUNS = 100;
await migrate();
const kernel = await openNodeKernel();
const document = footExercise();
const targets = prepareExercise(kernel, document);
if (!targets.ok) throw new Error(targets.refusal.sentence);
const wrong = checkSubmission(kernel, document, tripodFoot({ baseHole: 20 }));
if (!wrong.ok) throw new Error(wrong.refusal.sentence);
const { report, picture } = wrong.value;
const grade = gradeReport(document, report);

await rows(`insert into courses (title, term) select 'Course ' || c, 'Autumn' from generate_series(1, 20) c`);
await rows(`insert into people (name, email, password_hash)
  select 'Student ' || p, 'list-' || p || '@elsewhere.example', 'none' from generate_series(1, 500) p`);
await rows(`insert into enrolments (course_id, person_id, role)
  select c.id, p.id, 'student' from (select id, row_number() over () as n from courses) c
  join (select id, row_number() over () as n from people) p on (p.n - 1) / 25 = c.n - 1`);
await rows(
  `insert into exercises (course_id, document, prepared, prepared_version)
   select c.id,
     $1::jsonb || jsonb_build_object('number', 'L-' || lpad(n::text, 2, '0'), 'title', 'Exercise ' || n), $2, 1
   from courses c, generate_series(1, 20) n`,
  [document, targets.value],
);
await rows(
  `insert into handouts (exercise_id, course_id, exercise, revision, due_at, sheet, drawing, targets)
   select x.id, x.course_id, x.document, 1, now() + interval '1 day', $1, $2, $3 from exercises x`,
  [targets.value.sheet, targets.value.drawing, { volume: targets.value.volume, mass: targets.value.mass }],
);
// course by course: a statement may take as long as one of a page may
const filled = await rows<{ id: string }>("select id from courses");
const inEach = async (sql: string, values: readonly unknown[] = []) => {
  for (const c of filled) await rows(sql, [...values, c.id]);
};
await inEach(
  `insert into works (handout_id, person_id, document, live_numbers, live_at)
   select h.id, e.person_id, $1, '{"steps": 6, "sketches": 3, "defined": 3}', now()
   from handouts h join enrolments e on e.course_id = h.course_id where h.course_id = $2`,
  [tripodFoot()],
);
await inEach(
  `insert into submissions (handout_id, person_id, attempt, document, work_version)
   select h.id, e.person_id, a, $1, 1 from handouts h
   join enrolments e on e.course_id = h.course_id, generate_series(1, 6) a where h.course_id = $2`,
  [tripodFoot({ baseHole: 20 })],
);
// every newest try has its whole report, as a page of the class opens them
await inEach(
  `insert into reports (submission_id, run, revision, kernel, report, grade, picture)
   select s.id, s.id::text, 1, 'k', $1, $2, $3 from submissions s join handouts h on h.id = s.handout_id
   where s.attempt = 6 and h.course_id = $4`,
  [report, grade, packPicture(picture)],
);
await inEach(`with made as (
    insert into runs (kind, submission_id, state, job) select 'check', s.id, 'done', 'check:' || s.id
    from submissions s join handouts h on h.id = s.handout_id where h.course_id = $1 returning id, submission_id
  )
  insert into tries (submission_id, run_id, points, out_of, shown_points, shown_of, report_id)
  select s.id, m.id, 10 + s.attempt % 10, 20, 10, 20, r.id
  from made m join submissions s on s.id = m.submission_id left join reports r on r.submission_id = s.id`);
// and twenty courses more, 2,000 people in all, with an instructor each and somebody who looks after the server
await rows(`with c as (insert into courses (title) select 'Other ' || c from generate_series(1, 20) c returning id),
  p as (insert into people (name, email) select 'Person ' || p, 'other-' || p || '@elsewhere.example'
    from generate_series(1, 1500) p returning id)
  insert into enrolments (course_id, person_id, role)
  select c.id, p.id, 'student' from (select id, row_number() over () as n from c) c
  join (select id, row_number() over () as n from p) p on p.n % 20 = c.n - 1`);
await rows(`insert into people (name, email) select 'Teacher ' || c, 'teacher-' || c || '@elsewhere.example'
  from generate_series(1, 40) c`);
await rows(`insert into enrolments (course_id, person_id, role)
  select c.id, p.id, 'instructor' from (select id, row_number() over (order by title) as n from courses) c
  join (select id, row_number() over (order by name) as n from people where name like 'Teacher %') p on p.n = c.n`);
await rows("update people set administrator = true where email = 'other-1@elsewhere.example'");
await rows("vacuum analyze");

const { n } = await one<{ n: number }>("select count(*)::int as n from submissions");
const course = await one<{ id: string }>("select id from courses where title = 'Course 1'");
const student = await one<Person>(
  `select p.id, p.name, p.email from people p join enrolments e on e.person_id = p.id
   where e.course_id = $1 and e.role = 'student' limit 1`,
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
// into a course that no page is measured of
const other = await one<{ id: string }>("select id from courses where title = 'Other 1'");
const preview = async () => {
  const { lines } = readRoster(roster);
  await knownOf(
    other.id,
    lines.map((l) => l.email),
  );
};
tell("a roster of 500 looked at", await timed(preview));
tell("a roster of 500 taken in", await timed(() => takeIn({ id: other.id, title: "A" }, readRoster(roster).lines)));
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
