import type { Accepted } from "@/core/check/part-file";
import type { Exercise } from "@/core/check/exercise";
import type { Drawing } from "@/core/formats/drawing";
import type { AskedFigures } from "@/core/check/question";
import type { Need } from "@/core/grade/mark";
import type { Grade } from "@/core/grade/grade";
import { SHOWS, type Practice, type Shows } from "@/core/grade/shows";
import type { Sheet } from "@/core/sheet/sheet";
import { one, row, rows } from "./database";
import type { DueRules } from "@/core/grade/late";
import type { SubmissionState } from "./submissions";

export interface Handout {
  readonly id: string;
  readonly course_id: string;
  readonly course: string;
  readonly exercise: Exercise;
  readonly revision: number;
  readonly sheet: Sheet | null;
  readonly trouble: string | null;
  readonly due_at: Date;
  readonly grace_minutes: number;
  readonly after_due: DueRules["after_due"];
  readonly points_a_day: number;
  readonly time_zone: string;
  /** Whether the program may propose what a student's sketch still lacks. */
  readonly may_define: boolean;
  /** What is taken: a part built on the Bench, files in its place, typed figures alone. */
  readonly accepts: readonly Accepted[];
  /** How many tries there are; null: as many as one likes. */
  readonly attempts_most: number | null;
  /** Which try counts. */
  readonly counts: "last" | "best";
  readonly shows: Shows;
  /** Checks before handing in; null: none. */
  readonly practice: Practice | null;
  readonly weight: number;
  /** Nothing is returned before all were looked at. */
  readonly hold_back: boolean;
  /** What it is marked by since the last second check; null: as it was issued. */
  readonly marking: Exercise | null;
  readonly marking_revision: number | null;
}

export const handout = async (id: string): Promise<Handout> =>
  await one<Handout>(
    `select h.id, h.course_id, c.title as course, h.exercise, h.revision, h.sheet, h.trouble, h.due_at,
       h.grace_minutes, h.after_due, h.points_a_day, c.time_zone, h.may_define, h.accepts,
       h.attempts_most, h.counts, h.shows, h.practice, h.weight, h.hold_back, h.marking, h.marking_revision
       from handouts h join courses c on c.id = h.course_id where h.id = $1`,
    [id],
  );

/** The Sheet of a handout before it is written as a file; undefined for handouts of before there were files. */
export const drawingOf = async (id: string): Promise<Drawing | undefined> =>
  (await one<{ drawing: Drawing | null }>("select drawing from handouts where id = $1", [id])).drawing ?? undefined;

/** At most so many pages are made into one file. */
const MOST_SHEETS = 100;

/** The Sheets of a course's handouts, in the order they are due. */
export const drawingsOf = async (courseId: string): Promise<Drawing[]> =>
  (
    await rows<{ drawing: Drawing }>(
      `select drawing from handouts where course_id = $1 and drawing is not null
       order by due_at, id limit ${MOST_SHEETS}`,
      [courseId],
    )
  ).map((r) => r.drawing);

/** On what terms a handout is given. */
export interface Terms {
  readonly dueAt: Date;
  readonly graceMinutes?: number;
  readonly afterDue?: DueRules["after_due"];
  readonly pointsADay?: number;
  readonly mayDefine?: boolean;
  readonly accepts?: readonly Accepted[];
  readonly attemptsMost?: number | undefined;
  readonly counts?: Handout["counts"];
  readonly shows?: Shows;
  readonly practice?: Practice | undefined;
  readonly weight?: number;
  readonly holdBack?: boolean;
}

/**
 * Issues an exercise: exactly the revision whose Sheet and targets were measured is frozen with them, at once.
 * @param version the one that was looked at; left out: whatever it is now
 * @returns undefined where the exercise is another version, not measured yet, or in trouble
 */
export async function issueHandout(exerciseId: string, rules: Terms, version?: number): Promise<string | undefined> {
  const made = await row<{ id: string }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, sheet, due_at, may_define, grace_minutes,
       after_due, points_a_day, accepts, drawing, attempts_most, counts, shows, practice, weight, hold_back, targets)
     select id, course_id,
       jsonb_strip_nulls(jsonb_build_object('sizes', prepared->'sizes', 'wanted', prepared->'wanted')) || document,
       version, prepared->'sheet', $2, $3, $5, $6, $7, $8, prepared->'drawing', $9, $10, $11, $12, $13, $14,
       jsonb_build_object('volume', prepared->'volume', 'area', prepared->'area', 'mass', prepared->'mass')
       from exercises
     where id = $1 and prepared_version = version and prepared ? 'sheet' and ($4::int is null or version = $4)
     returning id`,
    [
      exerciseId,
      rules.dueAt,
      rules.mayDefine ?? true,
      version ?? null,
      rules.graceMinutes ?? 0,
      rules.afterDue ?? "late",
      rules.pointsADay ?? 0,
      rules.accepts ?? ["part"],
      rules.attemptsMost ?? null,
      rules.counts ?? "last",
      rules.shows ?? SHOWS,
      rules.practice ?? null,
      rules.weight ?? 1,
      rules.holdBack ?? false,
    ],
  );
  return made?.id;
}

/** Changes how a handout is marked and what its students see; what was handed in is marked by the caller. */
export const changeTerms = (id: string, t: Omit<Terms, "dueAt">) =>
  rows(
    `update handouts set attempts_most = $2, counts = $3, shows = $4, practice = $5, weight = $6, hold_back = $7
     where id = $1`,
    [
      id,
      t.attemptsMost ?? null,
      t.counts ?? "last",
      t.shows ?? SHOWS,
      t.practice ?? null,
      t.weight ?? 1,
      t.holdBack ?? false,
    ],
  );

/** What a student may know of a handout: nothing of the reference but what the Sheet prints. */
export interface StudentHandout {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly brief: string;
  readonly units: Exercise["units"];
  readonly material: Exercise["material"];
  readonly course: string;
  readonly dueAt: string;
  readonly sheet: Sheet | null;
  readonly trouble: string | null;
  readonly figures: AskedFigures;
}

export function forStudent(h: Handout): StudentHandout {
  const { number, title, brief, units, material } = h.exercise;
  return {
    id: h.id,
    number,
    title,
    brief,
    units,
    material,
    course: h.course,
    dueAt: h.due_at.toISOString(),
    sheet: h.sheet,
    trouble: h.trouble,
    figures: {
      units,
      massUnit: h.exercise.massUnit,
      questions: (h.exercise.questions ?? []).map(({ id, title }) => ({
        id,
        title,
        quantity: h.exercise.wanted?.[id]?.quantity ?? "length",
      })),
    },
  };
}

export interface ClassRow {
  readonly person_id: string;
  readonly name: string;
  readonly submission: string | null;
  readonly attempt: number | null;
  readonly state: SubmissionState | null;
  readonly progress: string | null;
  readonly trouble: string | null;
  readonly grade: Grade | null;
  /** What is left of the grade by the rules for late work. */
  readonly points: number | null;
  readonly late_seconds: number | null;
  readonly extended_to: Date | null;
  readonly handed_in_at: Date | null;
  readonly seen_at: Date | null;
  /** Why a person has to look. */
  readonly needs: readonly Need[] | null;
  readonly accepted_at: Date | null;
  readonly returned_at: Date | null;
  readonly turn: "student" | "instructor" | null;
  readonly group_name: string | null;
}

/** The class on a handout, one row per student with the latest attempt. */
export const classOn = (handoutId: string) =>
  rows<ClassRow>(
    `select p.id as person_id, p.name, s.id as submission, s.attempt, c.state, c.progress, c.trouble, s.handed_in_at,
       s.late_seconds, w.changed_at as seen_at, x.due_at as extended_to, r.grade, c.points,
       c.needs, c.accepted_at, c.returned_at, c.turn, g.name as group_name
     from handouts h join enrolments e on e.course_id = h.course_id and e.role = 'student' and e.left_at is null
     join people p on p.id = e.person_id left join groups g on g.id = e.group_id
     left join lateral (
       select s.id, s.attempt, s.handed_in_at, s.late_seconds from submissions s
       where s.handout_id = h.id and s.person_id = p.id order by s.attempt desc limit 1
     ) s on true
     left join checks c on c.submission_id = s.id
     left join reports r on r.id = c.report_id
     left join extensions x on x.handout_id = h.id and x.person_id = p.id
     left join works w on w.handout_id = h.id and w.person_id = p.id
     where h.id = $1 order by p.name`,
    [handoutId],
  );

/** When a student's work is due: the handout's moment, or their own. */
export async function dueFor(h: Handout, personId: string): Promise<Date> {
  const own = await row<{ due_at: Date }>("select due_at from extensions where handout_id = $1 and person_id = $2", [
    h.id,
    personId,
  ]);
  return own?.due_at ?? h.due_at;
}

/** Gives a student of the course more time, or takes it back. @returns false where they are no student of it */
export async function extend(handoutId: string, personId: string, dueAt: Date | undefined): Promise<boolean> {
  if (!dueAt) {
    await rows("delete from extensions where handout_id = $1 and person_id = $2", [handoutId, personId]);
    return true;
  }
  const made = await row(
    `insert into extensions (handout_id, person_id, due_at)
     select h.id, e.person_id, $3 from handouts h
     join enrolments e on e.course_id = h.course_id and e.role = 'student' and e.left_at is null
     where h.id = $1 and e.person_id = $2
     on conflict (handout_id, person_id) do update set due_at = excluded.due_at returning person_id`,
    [handoutId, personId, dueAt],
  );
  return made !== undefined;
}
