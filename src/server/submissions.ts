import type { Report } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise";
import type { Grade } from "@/core/grade/grade";
import type { PartDocument } from "@/core/part/document";
import type { PackedPicture } from "./pictures";
import { one, row, rows, transaction } from "./database";
import { enqueue } from "./queue";

export type SubmissionState = "queued" | "checking" | "checked" | "failed";

export interface Submission {
  readonly id: string;
  readonly handout_id: string;
  readonly person_id: string;
  readonly person: string;
  readonly attempt: number;
  readonly document: PartDocument;
  readonly state: SubmissionState;
  readonly progress: string;
  readonly trouble: string | null;
  readonly handed_in_at: Date;
}

/** Freezes the document as it stands and queues its check. */
export async function handIn(handoutId: string, personId: string, document: PartDocument): Promise<string> {
  return transaction(async (client) => {
    // one at a time per student, so that attempts are counted once
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`${handoutId}:${personId}`]);
    const made = await one<{ id: string }>(
      `insert into submissions (handout_id, person_id, attempt, document)
       values ($1, $2,
         1 + coalesce((select max(attempt) from submissions where handout_id = $1 and person_id = $2), 0), $3)
       returning id`,
      [handoutId, personId, document],
      client,
    );
    await enqueue({ task: "check", submission: made.id }, client);
    return made.id;
  });
}

export const submission = async (id: string): Promise<Submission> =>
  await one<Submission>(
    `select s.id, s.handout_id, s.person_id, p.name as person, s.attempt, s.document, s.state, s.progress,
       s.trouble, s.handed_in_at
       from submissions s join people p on p.id = s.person_id where s.id = $1`,
    [id],
  );

export const latestSubmission = (handoutId: string, personId: string) =>
  row<{ id: string; state: SubmissionState; attempt: number }>(
    "select id, state, attempt from submissions where handout_id = $1 and person_id = $2 order by attempt desc limit 1",
    [handoutId, personId],
  );

export const setState = (id: string, state: SubmissionState, progress = "", trouble: string | null = null) =>
  rows("update submissions set state = $2, progress = $3, trouble = $4 where id = $1", [id, state, progress, trouble]);

/** Says how far a check is; one that has ended says nothing any more. */
export const setProgress = (id: string, progress: string) =>
  rows("update submissions set progress = $2 where id = $1 and state = 'checking'", [id, progress]);

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

export const checkInput = (submissionId: string) =>
  row<{ document: PartDocument; exercise: Exercise; revision: number }>(
    `select s.document, h.exercise, h.revision from submissions s join handouts h on h.id = s.handout_id
       where s.id = $1`,
    [submissionId],
  );

/** Writes the one report of a run and marks the submission checked. */
export async function writeReport(
  submissionId: string,
  revision: number,
  report: Report,
  grade: Grade,
  picture: PackedPicture,
): Promise<void> {
  await transaction(async (client) => {
    await client.query(
      "insert into reports (submission_id, revision, kernel, report, grade, picture) values ($1, $2, $3, $4, $5, $6)",
      [submissionId, revision, report.kernel, report, grade, picture],
    );
    await client.query("update submissions set state = 'checked', progress = '', trouble = null where id = $1", [
      submissionId,
    ]);
  });
}
