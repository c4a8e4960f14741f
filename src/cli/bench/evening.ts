import { writeFileSync } from "node:fs";
import { footExercise } from "@/demo/exercises";
import { closeDatabase, one, rows } from "@/server/database";
import { openSession } from "@/server/people/people";
import { makeClass } from "./class-of-thirty";

const MANY = 30;
const HANDOUTS = 20;

/** An evening's work for `npm run bench -- marking`: thirty submissions, all checked, and a gradebook of 30 × 20. */
const c = await makeClass({ ...footExercise(), number: "EV-30" }, MANY);
for (;;) {
  const { n } = await one<{ n: number }>(
    `select count(*)::int as n from submissions s join checks k on k.submission_id = s.id
     where s.handout_id = $1 and k.state in ('queued', 'checking')`,
    [c.handout],
  );
  if (!n) break;
  await new Promise((r) => setTimeout(r, 500));
}
// the same students over a term: points made up here, since only drawing them is measured
const wide = c.course;
for (let i = 1; i < HANDOUTS; i++) {
  const made = await one<{ id: string }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, due_at)
     select exercise_id, course_id, jsonb_set(exercise, '{number}', to_jsonb($2::text)), revision,
       now() + interval '1 day'
     from handouts where id = $1 returning id`,
    [c.handout, `EV-${30 + i}`],
  );
  await rows(
    `with made as (
       insert into submissions (handout_id, person_id, attempt, document)
       select $1, s.person_id, 1, s.document from submissions s where s.handout_id = $2 returning id
     ), done as (
       insert into runs (kind, submission_id, state, job) select 'check', id, 'done', 'check:' || id from made
       returning id, submission_id
     )
     insert into tries (submission_id, run_id, points, out_of)
     select submission_id, id, (abs(hashtext(submission_id::text)) % 51) / 2.0, 25 from done`,
    [made.id, c.handout],
  );
}
const { token } = await openSession(c.teacher, "bench");
writeFileSync(process.argv[2]!, JSON.stringify({ ...c, wide, many: MANY, token }));
await closeDatabase();
