import type pg from "pg";
import type { Report } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise";
import type { Grade } from "@/core/grade/grade";
import { acceptedAs, FIGURES_ONLY, type Accepted, type FiguresOnly, type PartFile } from "@/core/check/part-file";
import type { Answers } from "@/core/check/question";
import type { PartDocument } from "@/core/part/document";
import { foreignSteps } from "@/core/part/foreign";
import type { OwnNumbers } from "@/core/check/own-numbers";
import { ownExercise } from "./own-parts";
import type { PackedPicture } from "./pictures";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { one, row, rows, transaction } from "./database";
import { IS_NEWEST } from "./newest";
import { areTriesUsed, isClosed, lateSeconds, triesUsedText } from "@/core/grade/late";
import type { Handout } from "./handouts";
import { remark } from "./marking";
import { dequeue, enqueue, PRIORITY, type Place } from "./queue";
import { keepVersion, type Shown } from "./versions";
import type { Work } from "./works";

export type SubmissionState = "queued" | "checking" | "checked" | "failed" | "replaced";

export interface Submission {
  readonly id: string;
  readonly handout_id: string;
  readonly person_id: string;
  readonly person: string;
  readonly attempt: number;
  readonly document: PartDocument | PartFile | FiguresOnly;
  readonly answers: Answers;
  readonly state: SubmissionState;
  readonly progress: string;
  readonly trouble: string | null;
  readonly handed_in_at: Date;
  readonly late_seconds: number;
  /** How many of the handout's hints had been opened. */
  readonly hints_opened: number;
  /** What is left of the newest report's points by the rules for late work. */
  readonly points: number | null;
}

/** What the browser asks for: the version it means, under an id of its own. */
export interface HandIn {
  readonly id: string;
  readonly version: number;
  readonly shown?: Shown | undefined;
  /** A file from elsewhere, in place of the part on the Bench. */
  readonly file?: PartFile | undefined;
  /** Figures typed beside the part, or in its place. */
  readonly answers?: Answers | undefined;
  readonly figuresOnly?: boolean | undefined;
}

/**
 * Freezes the version that is meant and queues its check, taking the place of the student's own that still waits. The
 * same hand-in sent again is answered with what it made.
 */
export async function handIn(h: Handout, personId: string, meant: HandIn): Promise<Outcome<{ submission: string }>> {
  return transaction(async (client) => {
    // one at a time per student, so that attempts are counted once
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`${h.id}:${personId}`]);
    const before = await row<{ id: string }>(
      "select id from submissions where hand_in_id = $1 and handout_id = $2 and person_id = $3",
      [meant.id, h.id, personId],
      client,
    );
    if (before) return done({ submission: before.id });
    const work = await row<Work & { variant: string }>(
      "select document, version, variant from works where handout_id = $1 and person_id = $2 for update",
      [h.id, personId],
      client,
    );
    const fault =
      faultOf(h, meant) ?? (isFromBench(meant) ? (faultOfWork(work, meant) ?? foreignIn(h, work)) : undefined);
    if (fault) return fault;
    const moment = await one<{ now: Date; own_due: Date | null }>(
      `select now() as now,
         (select due_at from extensions where handout_id = $1 and person_id = $2) as own_due`,
      [h.id, personId],
      client,
    );
    const tries = await one<{ n: number }>(
      "select count(*)::int as n from submissions where handout_id = $1 and person_id = $2",
      [h.id, personId],
      client,
    );
    const most = h.attempts_most;
    if (most !== null && areTriesUsed({ used: tries.n, most })) return refuse("no-tries", triesUsedText(most));
    const rules = { ...h, due_at: moment.own_due ?? h.due_at };
    if (isClosed(rules, moment.now))
      return refuse("closed", "This handout was due and takes nothing any more. Your part stays as it is.");
    const made = await one<{ id: string; attempt: number }>(
      `insert into submissions (handout_id, person_id, attempt, document, hand_in_id, work_version, late_seconds,
         answers, hints_opened)
       values ($1, $2,
         1 + coalesce((select max(attempt) from submissions where handout_id = $1 and person_id = $2), 0),
         $3, $4, $5, $6, $7,
         coalesce((select hints_opened from works where handout_id = $1 and person_id = $2), 0))
       returning id, attempt`,
      [
        h.id,
        personId,
        meant.file ?? (meant.figuresOnly ? FIGURES_ONLY : work!.document),
        meant.id,
        work?.version ?? 0,
        lateSeconds(rules, moment.now),
        meant.answers ?? {},
      ],
      client,
    );
    await client.query("insert into checks (submission_id) values ($1)", [made.id]);
    // a question asked about an earlier try is still open
    await remark(made.id, client);
    if (work && isFromBench(meant))
      await keepVersion(client, h.id, personId, {
        ...work,
        kind: "handed-in",
        name: `Handed in, try ${made.attempt}`,
        ...meant.shown,
      });
    const waiting = await rows<{ id: string }>(
      `update checks c set state = 'replaced', progress = '', trouble = $4, changed_at = now()
       from submissions s where s.id = c.submission_id and s.handout_id = $1 and s.person_id = $2 and s.id <> $3
         and c.state = 'queued' and c.report_id is null returning s.id`,
      [h.id, personId, made.id, REPLACED],
      client,
    );
    for (const { id } of waiting) await dequeue({ task: "check", submission: id }, client);
    await enqueue({ task: "check", submission: made.id }, placeOf(personId, made.attempt), client);
    return done({ submission: made.id });
  });
}

const isFromBench = (meant: HandIn): boolean => !meant.file && !meant.figuresOnly;

const TAKEN: Record<Accepted, string> = {
  part: "a part built on the Bench",
  step: "a STEP file",
  mesh: "a mesh file (STL, 3MF)",
  figures: "typed figures alone",
};

/** What is handed in must be what the handout takes. */
function faultOf(h: Handout, meant: HandIn): ReturnType<typeof refuse> | undefined {
  const alone = meant.figuresOnly ? "figures" : "part";
  const as: Accepted = meant.file ? acceptedAs(meant.file) : alone;
  if (h.accepts.includes(as)) return undefined;
  const list = h.accepts.map((a) => TAKEN[a]).join(" or ");
  return refuse("not-accepted", `This handout does not take ${TAKEN[as]}: hand in ${list}.`);
}

/** A body from a file is a file, though it came in a part: only what all were given to begin with may hold one. */
function foreignIn(h: Handout, work: Work | undefined): ReturnType<typeof refuse> | undefined {
  const { start } = h.exercise;
  const isGiven = start?.from === "starter" && foreignSteps(start.part).length > 0;
  if (!work || isGiven || h.accepts.includes("step") || !foreignSteps(work.document).length) return undefined;
  return refuse(
    "not-accepted",
    "This part holds a body from a file, and this handout takes only what is built on the Bench.",
  );
}

function faultOfWork(work: Work | undefined, meant: HandIn): ReturnType<typeof refuse> | undefined {
  if (!work?.document.steps.length)
    return refuse("empty", "There is nothing to hand in yet. Sketch and build the part first.");
  if (work.version === meant.version) return undefined;
  return refuse(
    "other-version",
    "The server holds another version of this part than the one on your screen. Look at it first, then hand in.",
  );
}

const REPLACED = "A later try came before this one was checked.";

/** First tries go before fifth ones, and at most two of one person are checked at once. */
const placeOf = (personId: string, attempt: number): Place => ({
  priority: PRIORITY.attempt(attempt),
  lane: `person:${personId}:${attempt % 2}`,
});

/**
 * Queues second checks; what was reported stays. @returns how many
 * @param of one submission, or every newest of a handout, or those of it that failed
 */
export async function checkAgain(
  of: { submission: string } | { handout: string; only?: "failed" | undefined },
): Promise<number> {
  return transaction(async (client) => {
    const chosen = await rows<{ id: string; person_id: string; attempt: number }>(
      "submission" in of
        ? `select s.id, s.person_id, s.attempt from submissions s join checks c on c.submission_id = s.id
           where s.id = $1 and c.state not in ('queued', 'checking') for update of c`
        : `select s.id, s.person_id, s.attempt from submissions s join checks c on c.submission_id = s.id
           where s.handout_id = $1 and c.state = any($2)
             and ${IS_NEWEST} for update of c`,
      "submission" in of ? [of.submission] : [of.handout, of.only ? ["failed"] : ["failed", "checked", "replaced"]],
      client,
    );
    for (const s of chosen) await requeue(client, s, PRIORITY.again);
    return chosen.length;
  });
}

/** Puts a check that has ended into the queue again, in its student's own lane. */
async function requeue(
  client: pg.PoolClient,
  s: { readonly id: string; readonly person_id: string; readonly attempt: number },
  priority: number,
): Promise<void> {
  await client.query(
    `update checks set state = 'queued', progress = '', trouble = null, queued_at = now(), changed_at = now()
     where submission_id = $1`,
    [s.id],
  );
  await enqueue({ task: "check", submission: s.id }, { ...placeOf(s.person_id, s.attempt), priority }, client);
}

/** Tries a failed check again, before what waits. */
export async function retryCheck(submissionId: string): Promise<void> {
  await transaction(async (client) => {
    const failed = await row<{ id: string; person_id: string; attempt: number }>(
      `select s.id, s.person_id, s.attempt from submissions s join checks c on c.submission_id = s.id
       where s.id = $1 and c.state = 'failed' for update of c`,
      [submissionId],
      client,
    );
    if (failed) await requeue(client, failed, PRIORITY.prepare);
  });
}

export const submission = async (id: string): Promise<Submission> =>
  await one<Submission>(
    `select s.id, s.handout_id, s.person_id, p.name as person, s.attempt, s.document, s.answers, c.state, c.progress,
       c.trouble, s.handed_in_at, s.late_seconds, s.hints_opened, c.points
     from submissions s join checks c on c.submission_id = s.id join people p on p.id = s.person_id where s.id = $1`,
    [id],
  );

export const latestSubmission = (handoutId: string, personId: string) =>
  row<{ id: string; state: SubmissionState; attempt: number; tries: number }>(
    `select s.id, c.state, s.attempt, (count(*) over ())::int as tries
     from submissions s join checks c on c.submission_id = s.id
     where s.handout_id = $1 and s.person_id = $2 order by s.attempt desc limit 1`,
    [handoutId, personId],
  );

/** Says how a check that runs stands; one that was stopped meanwhile stays so. One that failed needs a person. */
export const setState = (id: string, state: SubmissionState, progress = "", trouble: string | null = null) =>
  rows(
    `update checks set state = $2, progress = $3, trouble = $4, changed_at = now(),
       needs = case when $2 = 'failed' and report_id is null and accepted_at is null then '{failed}' else needs end
     where submission_id = $1 and state in ('queued', 'checking')`,
    [id, state, progress, trouble],
  );

/** Begins a check. @returns false where it is no longer wanted */
export async function beginCheck(id: string, progress: string): Promise<boolean> {
  const begun = await row(
    `update checks set state = 'checking', progress = $2, changed_at = now()
     where submission_id = $1 and state in ('queued', 'checking') returning submission_id`,
    [id, progress],
  );
  return begun !== undefined;
}

/** Says how far a check is; one that has ended says nothing any more. */
export const setProgress = (id: string, progress: string) =>
  rows("update checks set progress = $2, changed_at = now() where submission_id = $1 and state = 'checking'", [
    id,
    progress,
  ]);

export interface ReportRow {
  readonly id: string;
  readonly revision: number;
  readonly kernel: string;
  readonly report: Report;
  readonly grade: Grade;
  readonly created_at: Date;
}

export const latestReport = (submissionId: string) =>
  row<ReportRow>(
    `select id, revision, kernel, report, grade, created_at from reports where submission_id = $1
       order by created_at desc limit 1`,
    [submissionId],
  );
export const latestPicture = async (submissionId: string) =>
  (
    await row<{ picture: PackedPicture }>(
      "select picture from reports where submission_id = $1 order by created_at desc limit 1",
      [submissionId],
    )
  )?.picture;

/** What a check of a submission needs. */
export interface CheckInput extends Pick<Submission, "document" | "answers" | "person_id" | "attempt"> {
  /** What the handout is marked by now. */
  readonly exercise: Exercise;
  readonly revision: number;
  readonly initials: string;
}
export const checkInput = async (submissionId: string): Promise<CheckInput | undefined> => {
  const found = await row<CheckInput & { numbers: OwnNumbers | null }>(
    `select s.document, s.answers, coalesce(h.marking, h.exercise) as exercise,
       coalesce(h.marking_revision, h.revision) as revision, s.person_id, s.attempt, p.initials,
       o.numbers
     from submissions s join handouts h on h.id = s.handout_id join people p on p.id = s.person_id
     left join own_parts o on o.handout_id = h.id and o.person_id = s.person_id where s.id = $1`,
    [submissionId],
  );
  return found && { ...found, exercise: ownExercise(found.exercise, found.numbers) };
};

/**
 * Writes the one report of a run and marks the submission checked. Written once before by the same run (its answer was
 * lost), nothing is written again.
 */
export async function writeReport(
  submissionId: string,
  run: string,
  revision: number,
  report: Report,
  grade: Grade,
  picture: PackedPicture,
): Promise<void> {
  await transaction(async (client) => {
    const made = await row<{ id: string }>(
      `insert into reports (submission_id, run, revision, kernel, report, grade, picture)
       values ($1, $2, $3, $4, $5, $6, $7) on conflict (run) do nothing returning id`,
      [submissionId, run, revision, report.kernel, report, grade, picture],
      client,
    );
    if (!made) return;
    await client.query(
      `update checks set state = 'checked', progress = '', trouble = null, report_id = $2, changed_at = now()
       where submission_id = $1`,
      [submissionId, made.id],
    );
    await remark(submissionId, client);
  });
}
