import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { SHOWS } from "@/core/check/exercise/terms";
import type { Grade } from "@/core/grade/grade";
import { gradeOf, line } from "@/core/grade/testing/lines";
import { emptyPart } from "@/core/part/document";
import { FIGURES_ONLY } from "@/core/check/given/part-file";
import { copyCourse, handoutsOf } from "@/server/courses/courses";
import { closeDatabase, one, row, rows, transaction } from "@/server/database";
import { NOT_DRAWN } from "@/server/files/line-pictures";
import { saveExercise } from "@/server/exercises/changes";
import { exercise, createExercise } from "@/server/exercises/exercises";
import { gradebookOf, type GradebookStudent } from "@/server/marking/gradebook";
import { gradebookCsv, gradebookJson } from "@/server/marking/gradebook-files";
import { issueHandout, withdraw, type Terms } from "@/server/handouts/handout-terms";
import { classOn, handout } from "@/server/handouts/handouts";
import { decide, markingOf, returnAll } from "@/server/marking/marking";
import { makeCourse } from "@/server/courses/courses";
import type { Person } from "@/server/people/people";
import { Denied, permit } from "@/server/permissions";
import { practising } from "@/server/works/practices";
import { applyRecheck, beginRecheck, changesOf, finishTrial, beginTrial, progressOf } from "@/server/marking/rechecks";
import { removePerson } from "@/server/upkeep/removal";
import { studentView } from "@/server/marking/results";
import { handIn, submission } from "@/server/tries/submissions";
import { buryLost } from "@/server/tries/buried";
import { beginCheck, checkAgain, finishCheck } from "@/server/tries/checks";
import { openRun } from "@/server/tries/runs";
import { dropPerson, gradedAs, handoutNumbered, newStudent, newSubmission, openQuietly } from "./sample";

/** A course of its own: two handouts, three students of whom one is in a group, and a teacher. */
let course: string, teacher: Person, ash: Person, birk: Person, cole: Person, group: string, exerciseId: string;
const steel = { name: "Steel", density: 8 };
const part = () => emptyPart("a", "mm", steel);
const report = { version: 1, kernel: "k", evidence: [] } as never;
const graded = (points: number, more: Partial<Parameters<typeof line>[3]> = {}): Grade =>
  gradeOf(line("mass", points, 10, more));

beforeAll(async () => {
  const from = await handoutNumbered("WS-08");
  course = await makeCourse({ title: `Tries ${randomUUID()}`, term: "Spring", timeZone: "Europe/London" });
  teacher = await newStudent(course, "instructor");
  [ash, birk, cole] = [await newStudent(course), await newStudent(course), await newStudent(course)];
  group = (
    await one<{ id: string }>("insert into groups (course_id, name) values ($1, 'Early') returning id", [course])
  ).id;
  await rows("update enrolments set group_id = $2 where person_id = $1", [ash.id, group]);
  await holdLanes([ash, birk, cole]);
  const { document, prepared } = await exercise(
    (await one<{ exercise_id: string }>("select exercise_id from handouts where id = $1", [from.id])).exercise_id,
  );
  exerciseId = await createExercise(course, document);
  await rows("update exercises set prepared = $2, prepared_version = version where id = $1", [exerciseId, prepared]);
});
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [course]);
  });
  for (const p of [teacher, ash, birk, cole]) await dropPerson(p.id);
  await rows(
    `with gone as (delete from graphile_worker._private_jobs where job_queue_id in (
       select id from graphile_worker._private_job_queues where locked_by = 'tests') returning 1)
     select count(*) from gone`,
  );
  await rows("delete from graphile_worker._private_job_queues where locked_by = 'tests'");
  await closeDatabase();
});

/** The grading process leaves what students hand in here alone: their lanes are taken. */
const holdLanes = (people: readonly Person[]) =>
  rows(
    `insert into graphile_worker._private_job_queues (queue_name, locked_at, locked_by)
     select 'person:' || p || ':' || n, now(), 'tests' from unnest($1::text[]) p, generate_series(0, 1) n
     on conflict (queue_name) do update set locked_at = now(), locked_by = 'tests'`,
    [people.map((p) => p.id)],
  );

const DAY = 86_400_000;
const issued = async (terms: Partial<Terms> = {}) =>
  (await issueHandout(exerciseId, { dueAt: new Date(Date.now() + DAY), shows: SHOWS, ...terms }))!;
/** A try of somebody, checked with so many points. */
async function tried(handoutId: string, person: Person, points: number | undefined, attempt = 1): Promise<string> {
  const id = await newSubmission(handoutId, person.id, part(), attempt);
  if (points !== undefined) await gradedAs(id, graded(points));
  return id;
}
const entry = (what: Parameters<typeof decide>[2][number]["what"]) => ({ id: randomUUID(), what });
const points = async (id: string) => (await submission(id)).points;

describe("a corrected exercise while a check runs", () => {
  let id: string, h: string;
  beforeEach(async () => {
    h = await issued();
    id = await tried(h, ash, 10);
    await tried(h, birk, 9);
  });
  /** A second check of the whole class by a corrected exercise, that gives everybody 4. */
  async function corrected(): Promise<void> {
    const { document, version, prepared } = await exercise(exerciseId);
    const now = (await saveExercise(exerciseId, { ...document, brief: `${document.brief} ` }, version))!;
    await rows("update exercises set prepared = $2, prepared_version = $3 where id = $1", [exerciseId, prepared, now]);
    const r = await beginRecheck(await handout(h), teacher, { why: "a test" });
    if (!r.ok) throw new Error(r.refusal.sentence);
    for (const c of await changesOf(r.value)) {
      const begun = await beginTrial(r.value, c.submission);
      if (begun)
        await finishTrial(begun.ticket, r.value, c.submission, {
          report,
          grade: graded(4),
          picture: {} as never,
          lines: NOT_DRAWN,
        });
    }
    expect(await progressOf(r.value)).toEqual({ done: 2, of: 2 });
  }
  it("begun by the old one it changes nothing that was applied since, and its report is kept", async () => {
    await openQuietly(id);
    const { ticket } = (await beginCheck(id, ""))!;
    await corrected();
    const r = await applyRecheck(h);
    expect(r.ok).toBe(true);
    expect(await points(id)).toBe(4);
    expect(await finishCheck(ticket, id, report, graded(10), {} as never)).toBe(false);
    expect(await points(id)).toBe(4);
    expect((await submission(id)).state).toBe("checked");
    expect(await rows("select 1 from reports where submission_id = $1", [id])).toHaveLength(3);
  });
  it("one that came in between is checked by what is applied, though it runs by the old", async () => {
    await corrected();
    const late = await newSubmission(h, cole.id, part());
    const { ticket } = (await beginCheck(late, ""))!;
    await applyRecheck(h);
    // its own run gave way to a new one, which waits
    expect((await submission(late)).state).toBe("queued");
    await finishCheck(ticket, late, report, graded(10), {} as never);
    expect(await points(late)).toBeNull();
    const again = (await beginCheck(late, ""))!;
    expect(again.input.revision).toBe((await handout(h)).marking_revision);
    expect(await finishCheck(again.ticket, late, report, graded(3), {} as never)).toBe(true);
    expect(await points(late)).toBe(3);
  });
  it("an older try that is checked by hand meanwhile is checked by the new exercise in the end", async () => {
    const second = await tried(h, ash, 8, 2);
    await openQuietly(id);
    const { ticket } = (await beginCheck(id, ""))!;
    await corrected();
    await applyRecheck(h);
    expect(await points(second)).toBe(4);
    expect(await finishCheck(ticket, id, report, graded(10), {} as never)).toBe(false);
    expect((await submission(id)).state).toBe("queued");
  });
  it("what was given back stays as it was, with what was found then, until it is given back again", async () => {
    const shown = async () => {
      const view = await studentView(id, await handout(h));
      const mine = (await handoutsOf(course, ash)).find((x) => x.id === h)!;
      return { page: [view.mark?.points, view.mark?.of], list: [mine.my_points, mine.of], tries: view.tries[0]!.of };
    };
    await decide(id, teacher, [entry({ do: "return" })]);
    expect(await shown()).toEqual({ page: [10, 10], list: [10, 10], tries: 10 });
    await corrected();
    await applyRecheck(h);
    expect(await points(id)).toBe(4);
    expect(await shown()).toEqual({ page: [10, 10], list: [10, 10], tries: 10 });
    const first = await one<{ report_id: string }>("select report_id from returned where submission_id = $1", [id]);
    expect(first.report_id).not.toBe(
      (await one<{ r: string }>("select report_id as r from tries where submission_id = $1", [id])).r,
    );
    await decide(id, teacher, [entry({ do: "return" })]);
    expect(await shown()).toEqual({ page: [4, 10], list: [4, 10], tries: 10 });
  });
});

describe("of several tries", () => {
  it("where the best counts, none gives way, and all lists agree on the one that counts", async () => {
    const h = await issued({ counts: "best" });
    const best = await tried(h, ash, 8);
    const waiting = await newSubmission(h, ash.id, part(), 2);
    const last = await tried(h, ash, 5, 3);
    expect((await submission(waiting)).state).toBe("queued");
    const cell = async () => (await gradebookOf(course)).students.find((s) => s.id === ash.id)!.cells[h]!;
    expect(await cell()).toMatchObject({ submission: best, points: 8, attempts: 3 });
    expect((await classOn(h)).find((r) => r.person_id === ash.id)).toMatchObject({ submission: best, points: 8 });
    const mine = (await handoutsOf(course, ash)).find((x) => x.id === h)!;
    expect(mine).toMatchObject({ my_points: 8, my_submission: last, my_tries: 3 });
    await gradedAs(waiting, graded(9));
    expect(await cell()).toMatchObject({ submission: waiting, points: 9 });
    const r = await returnAll(h, teacher, "all", randomUUID);
    expect(r).toMatchObject({ ok: true, value: 1 });
    expect((await markingOf(waiting)).returned?.points).toBe(9);
  });
  it("a try that waits is checked still where the best counts, and gives way where the last does", async () => {
    for (const counts of ["best", "last"] as const) {
      const h = await handout(await issued({ counts, accepts: ["figures"] }));
      const give = async () => {
        const r = await handIn(h, birk.id, { id: randomUUID(), version: 0, figuresOnly: true });
        if (!r.ok) throw new Error(r.refusal.sentence);
        return r.value.submission;
      };
      const first = await newSubmission(h.id, birk.id, FIGURES_ONLY as never);
      await give();
      expect((await submission(first)).state).toBe(counts === "best" ? "queued" : "replaced");
    }
  });
  it("a second check looks at every one that may come to count", async () => {
    const h = await issued({ counts: "best" });
    await tried(h, ash, 8);
    await tried(h, ash, 5, 2);
    await tried(h, birk, 3);
    expect(await checkAgain({ handout: h })).toBe(3);
    const last = await issued();
    await tried(last, ash, 8);
    await tried(last, ash, 5, 2);
    expect(await checkAgain({ handout: last })).toBe(1);
  });
  it("the points that are kept without a name are those that count", async () => {
    const gone = await newStudent(course);
    const h = await issued({ counts: "best" });
    await tried(h, gone, 7);
    await tried(h, gone, 2, 2);
    expect((await removePerson(gone.id)).ok).toBe(true);
    const kept = await rows<{ points: number }>(
      "select points from grades_kept k join courses c on c.title = k.course where c.id = $1",
      [course],
    );
    expect(kept).toEqual([{ points: 7 }]);
  });
});

describe("the gradebook", () => {
  it("has each mark under its own handout, also where a handout is for a group only", async () => {
    const early = await issued({ audience: { groups: [group], people: [] } });
    const late = await issued({ dueAt: new Date(Date.now() + 2 * DAY) });
    await tried(early, ash, 6);
    await tried(late, ash, 9);
    await tried(late, birk, 8);
    const book = await gradebookOf(course);
    const of = (p: Person): GradebookStudent => book.students.find((s) => s.id === p.id)!;
    expect(of(birk).cells[early]).toBeUndefined();
    expect([of(ash).cells[early]!.points, of(ash).cells[late]!.points, of(birk).cells[late]!.points]).toEqual([
      6, 9, 8,
    ]);
    const [head, ...lines] = gradebookCsv(book)
      .split("\r\n")
      .map((l) => l.split(","));
    const columns = book.handouts.map((h) => h.id);
    const at = (p: Person, h: string) => lines.find((l) => l.includes(p.email))![3 + 2 * columns.indexOf(h)];
    expect(head).toHaveLength(4 + 2 * columns.length);
    expect([at(ash, early), at(ash, late), at(birk, early), at(birk, late)]).toEqual(["6", "9", "", "8"]);
    const json = gradebookJson("c", book).students.find((s) => s.email === birk.email)!;
    expect(json.results.filter((r) => [early, late].includes(r.handout))).toMatchObject([{ handout: late, points: 8 }]);
    const own = book.handouts.filter((h) => typeof of(birk).cells[h.id]?.points === "number");
    const sum = own.reduce((s, h) => s + of(birk).cells[h.id]!.points! / of(birk).cells[h.id]!.of!, 0);
    expect(of(birk).average).toBeCloseTo(sum / own.length, 9);
  });
});

describe("returning", () => {
  it("four times at once returns each once", async () => {
    const h = await issued();
    const ids = [await tried(h, ash, 7), await tried(h, birk, 6)];
    const done = await Promise.all([1, 2, 3, 4].map(() => returnAll(h, teacher, "all", randomUUID)));
    expect(done.reduce((n, r) => n + (r.ok ? r.value : 0), 0)).toBe(2);
    for (const id of ids) expect(await rows("select 1 from returned where submission_id = $1", [id])).toHaveLength(1);
  });
  it("held back it does not wait for who has left", async () => {
    const h = await issued({ holdBack: true });
    const left = await newStudent(course);
    const mine = await tried(h, ash, 7);
    await tried(h, left, 3);
    expect((await decide(mine, teacher, [entry({ do: "return" })])).ok).toBe(false);
    await rows("update enrolments set left_at = now() where person_id = $1", [left.id]);
    expect((await decide(mine, teacher, [entry({ do: "return" })])).ok).toBe(true);
    await dropPerson(left.id);
  });
  it("once more after a newer report, it is not near the limit any more", async () => {
    const h = await issued();
    const id = await newSubmission(h, ash.id, part());
    const near = graded(9, { near: "0.1 % below the limit" } as never);
    await gradedAs(id, near);
    expect((await markingOf(id)).mark.needs).toEqual(["near"]);
    await decide(id, teacher, [entry({ do: "return" })]);
    expect((await markingOf(id)).mark.needs).toEqual([]);
    await gradedAs(id, graded(8, { near: "0.1 % below the limit" } as never));
    expect((await markingOf(id)).mark.needs).toEqual(["near", "changed"]);
    await decide(id, teacher, [entry({ do: "return" })]);
    expect((await markingOf(id)).mark.needs).toEqual([]);
  });
});

describe("what is sent twice", () => {
  it("a handout issued three times at once is one", async () => {
    const issue = randomUUID(),
      terms = { dueAt: new Date(Date.now() + DAY) };
    const made = await Promise.all([1, 2, 3].map(() => issueHandout(exerciseId, terms, undefined, issue)));
    expect(new Set(made).size).toBe(1);
    expect(await issueHandout(exerciseId, terms, undefined, randomUUID())).not.toBe(made[0]);
  });
  it("a hand-in under a known id with something else in it is refused, and the same again is the same", async () => {
    const h = await handout(await issued({ accepts: ["step", "figures"] }));
    const file = { format: "caliper-file", version: 1, kind: "step", name: "a.step", text: "one" } as never;
    const other = { format: "caliper-file", version: 1, kind: "step", name: "b.step", text: "two" } as never;
    const id = randomUUID();
    const first = await handIn(h, cole.id, { id, version: 0, file });
    expect(await handIn(h, cole.id, { id, version: 0, file })).toEqual(first);
    expect(await handIn(h, cole.id, { id, version: 0, file: other })).toMatchObject({ ok: false });
    expect(await handIn(h, cole.id, { id, version: 0, figuresOnly: true })).toMatchObject({ ok: false });
    expect(await rows("select 1 from submissions where handout_id = $1", [h.id])).toHaveLength(1);
  });
});

it("a handout that was taken back takes no words, and its result can be read", async () => {
  const h = await issued();
  const id = await tried(h, ash, 7);
  expect(await permit(ash, "submission.talk", id)).toBe("student");
  await withdraw(h, true);
  await expect(permit(ash, "submission.talk", id)).rejects.toThrow(Denied);
  expect(await permit(ash, "submission.view", id)).toBe("student");
});

it("an exercise copied before it was measured is measured there", async () => {
  const unmeasured = await createExercise(course, { ...(await exercise(exerciseId)).document, title: "Copied early" });
  await rows("update exercises set prepared = null, prepared_version = 0 where id = $1", [unmeasured]);
  const there = await copyCourse(course, "Autumn");
  const made = await one<{ id: string }>(
    "select id from exercises where course_id = $1 and document->>'title' = 'Copied early'",
    [there],
  );
  expect(await row("select 1 from runs where exercise_id = $1 and kind = 'measure'", [made.id])).toBeDefined();
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [there]);
  });
});

describe("a run whose process died each time", () => {
  /** A run whose job stands as a process leaves it that died three times. */
  const lost = (of: Parameters<typeof openRun>[0]) =>
    transaction(async (client) => {
      const id = await openRun(of, {}, client);
      const { job } = await one<{ job: string }>("select job from runs where id = $1", [id], client);
      await client.query("select graphile_worker.remove_job($1)", [job]);
      await client.query(
        `select graphile_worker.add_job('nobody-does-this', max_attempts := 3, job_key := $1,
           run_at := now() + interval '1 day')`,
        [job],
      );
      await client.query("update graphile_worker._private_jobs set attempts = 3 where key = $1", [job]);
      if (of.kind === "check")
        await client.query("update tries set run_id = $2 where submission_id = $1", [of.submission_id, id]);
    });
  it("of any kind is ended with a sentence, and can be begun anew", async () => {
    const h = await issued();
    const id = await newSubmission(h, ash.id, part());
    const practice = randomUUID();
    await rows("insert into practices (id, handout_id, person_id, document, work_version) values ($1, $2, $3, $4, 1)", [
      practice,
      h,
      ash.id,
      part(),
    ]);
    const recheck = await one<{ id: string }>(
      `insert into rechecks (handout_id, exercise, revision, by_name) select id, exercise, revision, 'x'
       from handouts where id = $1 returning id`,
      [h],
    );
    const unmeasured = await createExercise(course, (await exercise(exerciseId)).document);
    await lost({ kind: "check", submission_id: id });
    await lost({ kind: "practice", practice_id: practice });
    await lost({ kind: "second-check", recheck_id: recheck.id, submission_id: id });
    await lost({ kind: "measure", exercise_id: unmeasured });
    await lost({ kind: "mistakes", exercise_id: unmeasured });
    await buryLost();
    expect(await submission(id)).toMatchObject({ state: "failed", trouble: expect.stringMatching(/ended each time/) });
    const { last } = await practising({ ...(await handout(h)), practice: { shows: "all" } as never }, ash.id);
    expect(last).toMatchObject({ state: "failed", trouble: expect.stringMatching(/ended each time/) });
    expect(await changesOf(recheck.id)).toMatchObject([
      { isDone: true, trouble: expect.stringMatching(/ended each time/) },
    ]);
    expect((await exercise(unmeasured)).prepared).toMatchObject({ trouble: expect.stringMatching(/ended each time/) });
    // and begun anew it goes its way
    expect(await checkAgain({ submission: id })).toBe(1);
    expect((await submission(id)).state).toMatch(/queued|checking|checked|failed/);
  });
});
