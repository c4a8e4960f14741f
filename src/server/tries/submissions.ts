import { isDeepStrictEqual } from "node:util";
import type pg from "pg";
import type { Report } from "@/core/check/check";
import type { Grade } from "@/core/grade/grade";
import { acceptedAs, FIGURES_ONLY, type Accepted, type FiguresOnly, type PartFile } from "@/core/check/given/part-file";
import type { Answers } from "@/core/check/exercise/question";
import type { PartDocument } from "@/core/part/document";
import { foreignSteps } from "@/core/part/foreign";
import type { PackedPicture } from "../files/pictures";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { one, row, rows, transaction } from "../database";
import { areTriesUsed, isClosed, lateSeconds, triesUsedText } from "@/core/grade/late";
import type { Handout } from "../handouts/handouts";
import { remark } from "../marking/marking";
import { openCheck } from "./checks";
import { endOpen } from "./runs";
import { keepVersion, type Shown } from "../works/versions";
import type { Work } from "../works/works";
import type { SubmissionState } from "./life";

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
    const before = await row<{ id: string; document: Submission["document"]; work_version: number | null }>(
      "select id, document, work_version from submissions where hand_in_id = $1 and handout_id = $2 and person_id = $3",
      [meant.id, h.id, personId],
      client,
    );
    if (before) return isSame(before, meant) ? done({ submission: before.id }) : refuse("other-hand-in", OTHER);
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
    await openCheck({ ...made, person_id: personId }, client);
    // a question asked about an earlier try is still open
    await remark(made.id, client);
    if (work && isFromBench(meant))
      await keepVersion(client, h.id, personId, {
        ...work,
        kind: "handed-in",
        name: `Handed in, try ${made.attempt}`,
        ...meant.shown,
      });
    // where the best of all counts, each of them is checked
    if (h.counts === "last") await replaceWaiting(h.id, personId, made.id, client);
    return done({ submission: made.id });
  });
}

/** Whether what was handed in under an id is what is meant by it now. */
function isSame(
  { document, work_version }: { document: Submission["document"]; work_version: number | null },
  { file, figuresOnly, version }: HandIn,
): boolean {
  if (file) return isDeepStrictEqual(document, file);
  if (figuresOnly) return document.format === FIGURES_ONLY.format;
  return document.format === "caliper-part" && work_version === version;
}
const OTHER =
  "Something else was handed in by this card already. Close it, look at your result, and hand in anew if you want to.";

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

/** Earlier tries that nobody has looked at give way to a later one. */
async function replaceWaiting(handout: string, person: string, submission: string, client: pg.PoolClient) {
  const waiting = await rows<{ id: string }>(
    `select s.id from submissions s join checks c on c.submission_id = s.id
     where s.handout_id = $1 and s.person_id = $2 and s.id <> $3 and c.state = 'queued' and c.report_id is null`,
    [handout, person, submission],
    client,
  );
  for (const { id } of waiting) await endOpen({ kind: "check", submission_id: id }, "replace", REPLACED, client);
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

interface ReportRow {
  readonly id: string;
  readonly revision: number;
  readonly kernel: string;
  readonly report: Report;
  readonly grade: Grade;
  readonly created_at: Date;
}

/** The report that a submission names as its own. */
export const currentReport = (submissionId: string) =>
  row<ReportRow>(
    `select r.id, r.revision, r.kernel, r.report, r.grade, r.created_at
     from tries t join reports r on r.id = t.report_id where t.submission_id = $1`,
    [submissionId],
  );
/** A report by its id: of what was given back, say. */
export const reportOf = (id: string) =>
  row<ReportRow>("select id, revision, kernel, report, grade, created_at from reports where id = $1", [id]);

/** The picture of a submission's own report, or of another of it. */
export const pictureOf = async (submissionId: string, report?: string): Promise<PackedPicture | undefined> =>
  (
    await row<{ picture: PackedPicture }>(
      `select r.picture from tries t join reports r on r.id = coalesce($2, t.report_id) and
         r.submission_id = t.submission_id where t.submission_id = $1`,
      [submissionId, report ?? null],
    )
  )?.picture;
