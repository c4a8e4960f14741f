import type pg from "pg";
import type { Report } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { OwnNumbers } from "@/core/check/exercise/own-numbers";
import type { FiguresOnly, PartFile } from "@/core/check/given/part-file";
import type { Answers } from "@/core/check/exercise/question";
import type { Grade } from "@/core/grade/grade";
import type { PartDocument } from "@/core/part/document";
import { one, row, rows, transaction } from "../database";
import { remark } from "../marking/marking";
import { ownExercise } from "../handouts/own-parts";
import { NOT_DRAWN, type KeptLines } from "../files/line-pictures";
import type { PackedPicture } from "../files/pictures";
import { enqueue, PRIORITY, type Place } from "../queue";
import { beginRun, endOpen, lockTries, openRun, settledRun, stepRun, type Subject, type Ticket } from "./runs";

const checkOf = (submission: string): Subject => ({ kind: "check", submission_id: submission });

/** By which revision a submission is marked now. */
const REVISION = `(select coalesce(h.marking_revision, h.revision) from submissions s
  join handouts h on h.id = s.handout_id where s.id = r.submission_id)`;

/** A try whose check is to be queued. */
export interface Checkable {
  readonly id: string;
  readonly person_id: string;
  readonly attempt: number;
}

/** First tries go before fifth ones, and at most two of one person are checked at once. */
const placeOf = ({ person_id, attempt }: Checkable): Place & { priority: number } => ({
  priority: PRIORITY.attempt(attempt),
  lane: `person:${person_id}:${attempt % 2}`,
});

/**
 * Queues a check of a try, in its student's own lane; one of it that waits or runs gives way to it.
 * @param priority left out: by which try it is
 */
export async function openCheck(checkable: Checkable, client: pg.PoolClient, priority?: number): Promise<void> {
  const place = placeOf(checkable);
  const run = await openRun(checkOf(checkable.id), { ...place, priority: priority ?? place.priority }, client);
  await client.query(
    `insert into tries (submission_id, run_id) values ($1, $2)
     on conflict (submission_id) do update set run_id = excluded.run_id, changed_at = now()`,
    [checkable.id, run],
  );
}

/** Which tries are checked again. */
type Again =
  { readonly submission: string; readonly only?: "failed" } | { readonly handout: string; readonly only?: "failed" };

/**
 * Queues second checks; what was reported stays. @returns how many
 * @param of one submission, or all of a handout that may count; `only`: those of them that failed
 */
export function checkAgain(of: Again, priority: number = PRIORITY.again): Promise<number> {
  return transaction(async (client) => {
    const states = of.only ? ["failed"] : ["failed", "checked", "replaced"];
    const chosen = await rows<Checkable>(
      "submission" in of
        ? `select s.id, s.person_id, s.attempt from submissions s join checks c on c.submission_id = s.id
           where s.id = $1 and c.state = any($2)`
        : `select s.id, s.person_id, s.attempt from may_count m join submissions s on s.id = m.submission_id
           join checks c on c.submission_id = s.id where m.handout_id = $1 and c.state = any($2)`,
      ["submission" in of ? of.submission : of.handout, states],
      client,
    );
    await lockTries(
      chosen.map((s) => s.id),
      client,
    );
    let count = 0;
    for (const checkable of chosen) {
      // two who press at once make one check
      const { state } = await one<{ state: string }>(
        "select state from checks where submission_id = $1",
        [checkable.id],
        client,
      );
      if (!states.includes(state)) continue;
      await openCheck(checkable, client, priority);
      count++;
    }
    return count;
  });
}

/** Tries a failed check again, before what waits. */
export const retryCheck = (submission: string): Promise<number> =>
  checkAgain({ submission, only: "failed" }, PRIORITY.prepare);

/** What a check of a submission needs. */
interface CheckInput {
  readonly document: PartDocument | PartFile | FiguresOnly;
  readonly answers: Answers;
  readonly person_id: string;
  readonly attempt: number;
  /** What the handout is marked by now. */
  readonly exercise: Exercise;
  readonly revision: number;
  readonly initials: string;
}

async function checkInput(submission: string, client: pg.PoolClient): Promise<CheckInput | undefined> {
  const found = await row<CheckInput & { numbers: OwnNumbers | null }>(
    `select s.document, s.answers, coalesce(h.marking, h.exercise) as exercise,
       coalesce(h.marking_revision, h.revision) as revision, s.person_id, s.attempt, p.initials,
       o.numbers
     from submissions s join handouts h on h.id = s.handout_id join people p on p.id = s.person_id
     left join own_numbers o on o.handout_id = h.id and o.person_id = s.person_id where s.id = $1 for share of h`,
    [submission],
    client,
  );
  return found && { ...found, exercise: ownExercise(found.exercise, found.numbers) };
}

/**
 * Begins the check of a submission, and gives what it needs: as it stands at that moment, and no other.
 * @returns undefined where it is no longer wanted
 */
export const beginCheck = (
  submission: string,
  progress: string,
): Promise<{ readonly ticket: Ticket; readonly input: CheckInput } | undefined> =>
  transaction(async (client) => {
    const input = await checkInput(submission, client);
    const ticket = input && (await beginRun(checkOf(submission), progress, REVISION, client));
    return ticket && { ticket, input };
  });

/** Ends a check in trouble; it needs a person, unless there is a report already. */
export const failCheck = (ticket: Ticket, submission: string, trouble: string): Promise<void> =>
  transaction(async (client) => {
    await lockTries([submission], client);
    if (await stepRun(ticket, "fail", { trouble }, client)) await remark(submission, client);
  });

/** A check that takes longer goes on beside the others. */
export const goOnLonger = (ticket: Ticket, submission: string, attempt: number): Promise<void> =>
  transaction(async (client) => {
    const progress = "this part takes longer; it goes on beside the others";
    const job = { task: "check-long", submission } as const;
    if (await stepRun(ticket, "again", { progress, job: `check-long:${submission}` }, client))
      await enqueue(job, { priority: PRIORITY.attempt(attempt) }, client);
  });

/**
 * Writes what a run found. It becomes the current report where the run is still the try's own and what it is marked by
 * has not changed; else it is kept beside the others, and a run that was overtaken by a corrected exercise begins anew.
 * @returns whether it is the current one
 */
export const finishCheck = (
  ticket: Ticket,
  submission: string,
  report: Report,
  grade: Grade,
  picture: PackedPicture,
  lines: KeptLines = NOT_DRAWN,
): Promise<boolean> =>
  transaction(async (client) => {
    const s = await one<Checkable & { now: number }>(
      `select s.id, s.person_id, s.attempt, coalesce(h.marking_revision, h.revision) as now
       from submissions s join handouts h on h.id = s.handout_id where s.id = $1 for share of h`,
      [submission],
      client,
    );
    await lockTries([submission], client);
    const made = await row<{ id: string }>(
      `insert into reports (submission_id, run, revision, kernel, report, grade, picture, plain, hatched)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (run) do nothing returning id`,
      [
        submission,
        `${ticket.run}:${ticket.turn}`,
        ticket.revision,
        report.kernel,
        report,
        grade,
        picture,
        lines.plain,
        lines.hatched,
      ],
      client,
    );
    if (!made) return false;
    if (s.now !== ticket.revision) {
      const progress = "the exercise was corrected; checking by it";
      if (await stepRun(ticket, "again", { progress }, client))
        await enqueue({ task: "check", submission }, placeOf(s), client);
      return false;
    }
    if (!(await stepRun(ticket, "finish", {}, client))) return false;
    await client.query("update tries set report_id = $2, changed_at = now() where submission_id = $1 and run_id = $3", [
      submission,
      made.id,
      ticket.run,
    ]);
    await remark(submission, client);
    return true;
  });

/** A report that was made beside, by a second check, becomes a try's own: what is open of it gives way. */
export async function takeReport(s: Checkable, report: string, client: pg.PoolClient): Promise<void> {
  const run = await settledRun(checkOf(s.id), client);
  await client.query("update tries set run_id = $2, report_id = $3, changed_at = now() where submission_id = $1", [
    s.id,
    run,
    report,
  ]);
}

const STOPPED = "Stopped by whoever looks after the server. It can be checked again.";

/** Stops a check by hand, waiting or running. */
export const stopCheck = (submission: string): Promise<void> =>
  transaction(async (client) => {
    await lockTries([submission], client);
    if (await endOpen(checkOf(submission), "stop", STOPPED, client)) await remark(submission, client);
  });
