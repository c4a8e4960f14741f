import type pg from "pg";
import type { Report } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { PartDocument } from "@/core/part/document";
import type { FiguresOnly, PartFile } from "@/core/check/given/part-file";
import type { Answers } from "@/core/check/exercise/question";
import type { Grade } from "@/core/grade/grade";
import type { Mark } from "@/core/grade/mark";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { database, one, row, rows, transaction } from "../database";
import type { Handout } from "../handouts/handouts";
import { markingOf, markWith, remark } from "./marking";
import type { Person } from "../people/people";
import type { OwnNumbers } from "@/core/check/exercise/own-numbers";
import { measureAnew, ownExercise } from "../handouts/own-parts";
import { PRIORITY } from "../queue";
import { openCheck, takeReport, type Checkable } from "../tries/checks";
import { beginRun, endRun, lockTries, openRun, replaceTrials, type Subject, type Ticket } from "../tries/runs";
import type { KeptLines } from "../files/line-pictures";
import type { PackedPicture } from "../files/pictures";

/** A second check that is tried, or was applied. */
interface Recheck {
  readonly id: string;
  readonly revision: number;
  readonly why: string;
  readonly by_name: string;
  readonly made_at: Date;
  readonly state: "trying" | "applied" | "dropped";
}

/** Every submission of a handout that may come to count. */
const MAY_COUNT = `select s.id, s.person_id, s.attempt
  from may_count m join submissions s on s.id = m.submission_id where m.handout_id = $1`;

const secondOf = (recheck: string, submission: string): Subject => ({
  kind: "second-check",
  recheck_id: recheck,
  submission_id: submission,
});

/**
 * Begins a second check of a handout by its exercise as it stands now: everything is checked anew beside what is, and
 * nothing changes before it is applied.
 * @param givesSheet its Sheet is a corrected one that students get with it
 */
export async function beginRecheck(
  handout: Handout,
  person: Person,
  { why, givesSheet = false }: { readonly why: string; readonly givesSheet?: boolean },
): Promise<Outcome<string>> {
  return transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`recheck:${handout.id}`]);
    const open = await row<{ id: string }>(
      "select id from rechecks where handout_id = $1 and state = 'trying'",
      [handout.id],
      client,
    );
    if (open) return done(open.id);
    const made = await row<{ id: string }>(
      `insert into rechecks (handout_id, exercise, revision, targets, why, made_by, by_name, gives_sheet, sheet,
         drawing)
       select h.id,
         jsonb_strip_nulls(jsonb_build_object('sizes', x.prepared->'sizes', 'wanted', x.prepared->'wanted'))
           || x.document,
         x.version,
         jsonb_build_object('volume', x.prepared->'volume', 'area', x.prepared->'area', 'mass', x.prepared->'mass'),
         $2, $3, $4, $5, case when $5 then x.prepared->'sheet' end, case when $5 then x.prepared->'drawing' end
       from handouts h join exercises x on x.id = h.exercise_id
       where h.id = $1 and x.prepared_version = x.version and x.prepared ? 'sheet' returning id`,
      [handout.id, why, person.id, person.name, givesSheet],
      client,
    );
    if (!made)
      return refuse(
        "not-measured",
        "The exercise is still being measured, or its reference is in trouble. Try again in a moment.",
      );
    const submissions = await rows<{ id: string }>(MAY_COUNT, [handout.id], client);
    for (const { id } of submissions) await openRun(secondOf(made.id, id), { priority: PRIORITY.again }, client);
    return done(made.id);
  });
}

export const openRecheck = (handoutId: string) =>
  row<Recheck>(
    `select id, revision, why, by_name, made_at, state from rechecks
     where handout_id = $1 and state = 'trying'`,
    [handoutId],
  );
export const appliedRechecks = (handoutId: string) =>
  rows<Recheck>(
    `select id, revision, why, by_name, made_at, state from rechecks
     where handout_id = $1 and state = 'applied' order by made_at desc`,
    [handoutId],
  );

/** The version of the exercise a handout was made of, as it is now, and what it is marked by. */
export const revisionsOf = (handoutId: string) =>
  one<{ marked_by: number; now: number; is_measured: boolean; exercise_id: string }>(
    `select coalesce(h.marking_revision, h.revision) as marked_by, x.version as now,
       x.prepared_version = x.version as is_measured, x.id as exercise_id
     from handouts h join exercises x on x.id = h.exercise_id where h.id = $1`,
    [handoutId],
  );

/** What a second check would change for one student. */
export interface Change {
  readonly submission: string;
  readonly person: string;
  readonly before: number | null;
  readonly after: number | null;
  readonly ofBefore: number | null;
  readonly ofAfter: number | null;
  /** Lines whose points change, from what to what. */
  readonly lines: readonly {
    readonly title: string;
    readonly before: number | null;
    readonly after: number | null;
    readonly why: string;
  }[];
  readonly trouble: string | null;
  readonly isDone: boolean;
}

/** Who would change by how much, those first who change most. */
export async function changesOf(recheckId: string): Promise<Change[]> {
  const list = await rows<{ id: string; person: string; grade: Grade | null; trouble: string | null; done: boolean }>(
    `select s.id, p.name as person, t.grade, t.trouble, t.submission_id is not null as done
     from rechecks x join may_count m on m.handout_id = x.handout_id
     join submissions s on s.id = m.submission_id join people p on p.id = s.person_id
     left join trials t on t.recheck_id = x.id and t.submission_id = s.id
     where x.id = $1 order by p.name, s.attempt`,
    [recheckId],
  );
  const changes: Change[] = [];
  for (const s of list) {
    const now = await markingOf(s.id);
    const then = s.grade ? markWith(now, { grade: s.grade, checkedAt: new Date().toISOString() }) : undefined;
    changes.push({
      submission: s.id,
      person: s.person,
      before: now.grade ? now.mark.points : null,
      after: then?.points ?? null,
      ofBefore: now.grade ? now.mark.of : null,
      ofAfter: then?.of ?? null,
      lines: then ? changedLines(now.grade ? now.mark : undefined, then) : [],
      trouble: s.trouble,
      isDone: s.done,
    });
  }
  const by = (c: Change) => Math.abs((c.after ?? 0) - (c.before ?? 0));
  return changes.sort((a, b) => by(b) - by(a) || a.person.localeCompare(b.person));
}

function changedLines(before: Mark | undefined, after: Mark): Change["lines"] {
  const old = new Map(before?.lines.map((l) => [l.id, l]));
  const changed = after.lines.flatMap((l) => {
    const was = old.get(l.id);
    if (was && was.points === l.points && was.of === l.of) return [];
    return [{ title: l.title, before: was?.points ?? null, after: l.points, why: l.sentence }];
  });
  const kept = new Set(after.lines.map((l) => l.id));
  const gone = (before?.lines ?? []).filter((l) => !kept.has(l.id));
  return [
    ...changed,
    ...gone.map((l) => ({ title: l.title, before: l.points, after: null, why: "not in the rubric any more" })),
  ];
}

/** Begins the trial of one submission, and gives what it needs; undefined where it is no longer wanted. */
export async function beginTrial(recheckId: string, submissionId: string) {
  const ticket = await beginRun(secondOf(recheckId, submissionId), "starting", TRIAL_REVISION);
  const found =
    ticket &&
    (await row<{
      document: PartDocument | PartFile | FiguresOnly;
      answers: Answers;
      exercise: Exercise;
      initials: string;
      numbers: OwnNumbers | null;
    }>(
      `select s.document, s.answers, x.exercise, p.initials, o.numbers
       from rechecks x join submissions s on s.handout_id = x.handout_id join people p on p.id = s.person_id
       left join own_numbers o on o.handout_id = s.handout_id and o.person_id = s.person_id
       where x.id = $1 and s.id = $2 and x.state = 'trying'`,
      [recheckId, submissionId],
    ));
  return found && { ticket, input: { ...found, exercise: ownExercise(found.exercise, found.numbers) } };
}
const TRIAL_REVISION = "(select x.revision from rechecks x where x.id = r.recheck_id)";

/** What a trial found. */
type Found =
  | { readonly report: Report; readonly grade: Grade; readonly picture: PackedPicture; readonly lines: KeptLines }
  | { readonly trouble: string };

/** Ends a trial with what it found; one that has ended or was dropped leaves nothing. */
export const finishTrial = (ticket: Ticket, recheckId: string, submissionId: string, found: Found): Promise<void> =>
  transaction(async (client) => {
    const trouble = "trouble" in found ? found.trouble : null;
    if (await endRun(ticket, trouble, client)) await writeTrial(recheckId, submissionId, found, client);
  });

/** Writes what a trial found, once. */
export async function writeTrial(
  recheckId: string,
  submissionId: string,
  found: Found,
  client: pg.Pool | pg.PoolClient = database(),
): Promise<void> {
  await client.query(
    `insert into trials (recheck_id, submission_id, report, grade, picture, plain, hatched, trouble)
     values ($1, $2, $3, $4, $5, $6, $7, $8) on conflict do nothing`,
    "trouble" in found
      ? [recheckId, submissionId, null, null, null, null, null, found.trouble]
      : [
          recheckId,
          submissionId,
          found.report,
          found.grade,
          found.picture,
          found.lines.plain,
          found.lines.hatched,
          null,
        ],
  );
  await client.query("select tell('class:' || handout_id) from rechecks where id = $1", [recheckId]);
}

/** Throws a trial away: nothing has changed. */
export const dropRecheck = (handoutId: string): Promise<void> =>
  transaction(async (client) => {
    const x = await row<{ id: string }>(
      `update rechecks set state = 'dropped', ended_at = now() where handout_id = $1 and state = 'trying'
       returning id`,
      [handoutId],
      client,
    );
    if (x) await replaceTrials(x.id, client);
  });

/**
 * Applies a second check: new reports stand beside the old, and marks follow them and what was decided. Those handed in
 * since it began are checked by it as well.
 */
export async function applyRecheck(handoutId: string): Promise<Outcome<number>> {
  return transaction(async (client) => {
    const x = await row<{ id: string; revision: number }>(
      "select id, revision from rechecks where handout_id = $1 and state = 'trying' for update",
      [handoutId],
      client,
    );
    if (!x) return refuse("gone", "This second check was applied or dropped already.");
    // whoever looks at a handout's checks waits here: what they are marked by changes for all at once
    await client.query("select 1 from handouts where id = $1 for update", [handoutId]);
    const chosen = await rows<Checkable>(`${MAY_COUNT} order by s.id`, [handoutId], client);
    await lockTries(
      chosen.map((s) => s.id),
      client,
    );
    await replaceTrials(x.id, client);
    await client.query(
      `update handouts h set marking = r.exercise, marking_revision = r.revision, targets = r.targets,
         marking_sheet = coalesce(r.sheet, h.marking_sheet), marking_drawing = coalesce(r.drawing, h.marking_drawing)
       from rechecks r where r.id = $1 and h.id = r.handout_id`,
      [x.id],
    );
    await measureAnew(handoutId, client);
    await client.query("update rechecks set state = 'applied', ended_at = now() where id = $1", [x.id]);
    const made = await rows<{ id: string; submission_id: string }>(
      `insert into reports (submission_id, run, revision, kernel, report, grade, picture, plain, hatched, recheck_id)
       select submission_id, 'recheck:' || recheck_id || ':' || submission_id, $2, report->>'kernel', report, grade,
         picture, plain, hatched, recheck_id
       from trials where recheck_id = $1 and report is not null on conflict (run) do nothing
       returning id, submission_id`,
      [x.id, x.revision],
      client,
    );
    const tried = new Map(made.map((r) => [r.submission_id, r.id]));
    for (const s of chosen) {
      const report = tried.get(s.id);
      // what came in between goes the usual way, by what is marked by now
      if (report) await takeReport(s, report, client);
      else await openCheck(s, client, PRIORITY.again);
      await remark(s.id, client);
    }
    return done(made.length);
  });
}

/** How far a second check is. */
export const progressOf = (recheckId: string) =>
  one<{ done: number; of: number }>(
    `select (select count(*)::int from trials where recheck_id = $1) as done,
       (select count(*)::int from may_count m join rechecks x on x.handout_id = m.handout_id where x.id = $1) as of`,
    [recheckId],
  );
