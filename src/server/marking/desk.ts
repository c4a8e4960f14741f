import type { Report } from "@/core/check/check";
import type { Answers } from "@/core/check/exercise/question";
import type { FiguresOnly, PartFile } from "@/core/check/given/part-file";
import type { Entry } from "@/core/grade/decision";
import type { Grade } from "@/core/grade/grade";
import type { PartDocument } from "@/core/part/document";
import { rows } from "../database";
import { markingOf } from "./marking";
import { ownOnDesk, type DeskOwn } from "../handouts/copied-parts";
import type { SubmissionState } from "../tries/life";
import { currentReport, submission, type Submission } from "../tries/submissions";

/** One try of a student on the same handout. */
interface AttemptRow {
  readonly id: string;
  readonly attempt: number;
  readonly points: number | null;
  readonly of: number | null;
  readonly state: SubmissionState;
  readonly handedInAt: string;
}

/** A check of a submission: each stays beside those before. */
interface CheckedOnce {
  readonly at: string;
  readonly points: number;
  readonly of: number;
  readonly kernel: string;
  /** Of a second check by a changed exercise, why. */
  readonly why: string | null;
}

/** All that the Marking desk shows of a submission beside its picture. */
export interface DeskSubmission {
  readonly id: string;
  readonly personId: string;
  readonly person: string;
  readonly attempt: number;
  readonly state: SubmissionState;
  readonly progress: string;
  readonly trouble: string | null;
  readonly handedInAt: string;
  readonly lateSeconds: number;
  readonly hintsOpened: number;
  readonly document: PartDocument | FileName | FiguresOnly;
  readonly answers: Answers;
  readonly report: Report | null;
  readonly grade: Grade | null;
  readonly checkedAt: string | null;
  readonly history: readonly Entry[];
  readonly returned: { readonly points: number; readonly at: string } | null;
  readonly attempts: readonly AttemptRow[];
  readonly checks: readonly CheckedOnce[];
  /** Numbers of their own; null where all have the same. */
  readonly own: DeskOwn | null;
}

/** What stands at the head of a result, whoever reads it. */
export const headOf = (s: Submission) => ({
  id: s.id,
  person: s.person,
  attempt: s.attempt,
  state: s.state,
  progress: s.progress,
  trouble: s.trouble,
  handedInAt: s.handed_in_at.toISOString(),
  lateSeconds: s.late_seconds,
  hintsOpened: s.hints_opened,
});

export async function deskSubmission(id: string): Promise<DeskSubmission> {
  const s = await submission(id);
  const [report, m, attempts, checks] = await Promise.all([
    currentReport(id),
    markingOf(id),
    attemptsOf(s.handout_id, s.person_id),
    checksOf(id),
  ]);
  return {
    ...headOf(s),
    personId: s.person_id,
    document: s.document.format === "caliper-file" ? nameOf(s.document) : s.document,
    answers: s.answers,
    report: report?.report ?? null,
    grade: m.grade ?? null,
    checkedAt: m.checkedAt ?? null,
    history: m.history,
    returned: m.returned ?? null,
    attempts,
    checks,
    own: (await ownOnDesk({ handoutId: s.handout_id, personId: s.person_id }, report?.report)) ?? null,
  };
}

/** A file from elsewhere by its name: what stands in it is of no use on the desk. */
type FileName = Pick<PartFile, "format" | "kind" | "name">;
const nameOf = ({ format, kind, name }: PartFile): FileName => ({ format, kind, name });

/** All tries of a student on a handout, the newest first. */
const attemptsOf = async (handoutId: string, personId: string): Promise<AttemptRow[]> =>
  (
    await rows<Omit<AttemptRow, "handedInAt"> & { handed_in_at: Date }>(
      `select s.id, s.attempt, c.points, c.out_of as of, c.state, s.handed_in_at
       from submissions s join checks c on c.submission_id = s.id
       where s.handout_id = $1 and s.person_id = $2 order by s.attempt desc`,
      [handoutId, personId],
    )
  ).map(({ handed_in_at, ...r }) => ({ ...r, handedInAt: handed_in_at.toISOString() }));

const checksOf = async (submissionId: string): Promise<CheckedOnce[]> =>
  (
    await rows<Omit<CheckedOnce, "at"> & { created_at: Date }>(
      `select r.created_at, (r.grade->>'points')::float as points, (r.grade->>'of')::float as of, r.kernel, x.why
       from reports r left join rechecks x on x.id = r.recheck_id where r.submission_id = $1 order by r.created_at`,
      [submissionId],
    )
  ).map(({ created_at, ...r }) => ({ ...r, at: created_at.toISOString() }));
