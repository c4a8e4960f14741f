import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, beforeEach, expect, it } from "vitest";
import { emptyPart } from "@/core/part/document";
import { makeCourse } from "@/server/courses/courses";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import type { Person } from "@/server/people/people";
import { dropPerson, gradedAs, handoutNumbered, newStudent, newSubmission } from "./sample";
import { gradeOf, line } from "@/core/grade/testing/lines";

/** Which try counts stands written: whatever happens at once, it is what would be worked out anew. */
let course: string, ash: Person, birk: Person, handouts: readonly string[], first: string, second: string;
const graded = (points: number) => gradeOf(line("mass", points, 10));
const part = () => emptyPart("a", "mm", { name: "Steel", density: 8 });

beforeAll(async () => {
  const from = await handoutNumbered("WS-08");
  course = await makeCourse({ title: `Standings ${randomUUID()}`, term: "Spring", timeZone: "Europe/London" });
  [ash, birk] = [await newStudent(course), await newStudent(course)];
  handouts = (
    await rows<{ id: string }>(
      `insert into handouts (exercise_id, course_id, exercise, revision, due_at, sheet, drawing, targets, counts)
       select exercise_id, $2, exercise, 1, now() + interval '1 day', sheet, drawing, targets, 'best'
       from handouts, generate_series(1, 2) where id = $1 returning id`,
      [from.id, course],
    )
  ).map((h) => h.id);
});
beforeEach(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from submissions where handout_id = any($1)", [handouts]);
  });
  for (const handout of handouts)
    for (const person of [ash, birk]) {
      const ids = [1, 2].map(async (attempt) => newSubmission(handout, person.id, part(), attempt));
      const [a, b] = await Promise.all(ids);
      await gradedAs(a!, graded(3));
      await gradedAs(b!, graded(5));
      if (handout === handouts[0] && person === ash) [first, second] = [a!, b!];
    }
});
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [course]);
  });
  for (const p of [ash, birk]) await dropPerson(p.id);
  await closeDatabase();
});

const standing = () =>
  one<{ tries: number; newest: string; counting: string }>(
    "select tries, newest, counting from standings where handout_id = $1 and person_id = $2",
    [handouts[0], ash.id],
  );
/** Standings of everybody that differ from what would be worked out now. */
const untrue = () =>
  rows(
    `select s.handout_id, s.person_id, o.counting as written, n.counting
     from (select distinct s.handout_id, s.person_id from submissions s join tries t on t.submission_id = s.id
       union select handout_id, person_id from standings) s
     left join standings o using (handout_id, person_id)
     left join lateral standings_of(s.handout_id, s.person_id) n on true
     where (o.tries, o.newest, o.counting) is distinct from (n.tries, n.newest, n.counting)`,
  );

it("the better counts, and the newest by another rule", async () => {
  expect(await standing()).toEqual({ tries: 2, newest: second, counting: second });
  await rows("update tries set points = 8 where submission_id = $1", [first]);
  expect(await standing()).toMatchObject({ newest: second, counting: first });
  await rows("update handouts set counts = 'last' where id = $1", [handouts[0]]);
  expect(await standing()).toMatchObject({ counting: second });
  await rows("update handouts set counts = 'best' where id = $1", [handouts[0]]);
  expect(await standing()).toMatchObject({ counting: first });
  expect(await untrue()).toEqual([]);
});

it("two reports at once, of two tries of one student: the later sees the earlier", async () => {
  let saidOther = () => {};
  const isOther = new Promise<void>((go) => (saidOther = go));
  const earlier = transaction(async (client) => {
    await client.query("update tries set points = 9 where submission_id = $1", [first]);
    await isOther;
    // long enough for the other to stand at the lock
    await client.query("select pg_sleep(0.1)");
  });
  const later = transaction(async (client) => {
    saidOther();
    await client.query("update tries set points = 6 where submission_id = $1", [second]);
  });
  await Promise.all([earlier, later]);
  expect(await standing()).toMatchObject({ counting: first });
  expect(await untrue()).toEqual([]);
});

it("a try that goes takes its standing along; what stays of the student is worked out anew", async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from submissions where id = $1", [second]);
  });
  expect(await standing()).toEqual({ tries: 1, newest: first, counting: first });
  expect(await untrue()).toEqual([]);
});

it("is written true for everybody in this database", async () => {
  expect(await untrue()).toEqual([]);
  const { n } = await one<{ n: number }>("select count(*)::int as n from standings");
  expect(n).toBeGreaterThan(4);
});
