import type { Accepted } from "@/core/check/given/part-file";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Drawing } from "@/core/formats/drawing";
import type { AskedFigures } from "@/core/check/exercise/question";
import type { Need } from "@/core/grade/mark";
import type { Grade } from "@/core/grade/grade";
import type { Practice, Shows } from "@/core/check/exercise/terms";
import type { Sheet } from "@/core/sheet/sheet";
import { one, row, rows } from "../database";
import { IS_OPEN_TO } from "./open-to";
import type { DueRules } from "@/core/grade/late";
import type { SubmissionState } from "../tries/life";

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
  /** Before it students do not see it. */
  readonly opens_at: Date | null;
  readonly closes_at: Date | null;
  /** Taken back: no student sees it, and nothing of it counts. */
  readonly withdrawn_at: Date | null;
  /** Kinds of steps that the Bench offers; null: all. */
  readonly may_use: readonly string[] | null;
}

export const handout = async (id: string): Promise<Handout> =>
  await one<Handout>(
    `select h.id, h.course_id, c.title as course, h.exercise, h.revision,
       coalesce(h.marking_sheet, h.sheet) as sheet, h.trouble, h.due_at, h.opens_at, h.closes_at, h.withdrawn_at,
       h.may_use,
       h.grace_minutes, h.after_due, h.points_a_day, c.time_zone, h.may_define, h.accepts,
       h.attempts_most, h.counts, h.shows, h.practice, h.weight, h.hold_back, h.marking, h.marking_revision
       from handouts h join courses c on c.id = h.course_id where h.id = $1`,
    [id],
  );

/** Somebody's own Sheet, or the one for all; a student whose own is not made yet has none. */
const DRAWING = `case when h.exercise->'varies' is not null and e.role = 'student' then o.drawing
  else coalesce(h.marking_drawing, h.drawing) end`;
const DRAWING_FOR = `handouts h join enrolments e on e.course_id = h.course_id and e.person_id = $2
  left join own_parts o on o.handout_id = h.id and o.person_id = e.person_id`;

/** The Sheet of a handout as a person has it, before it is written as a file; undefined where there is none. */
export const drawingOf = async (id: string, personId: string): Promise<Drawing | undefined> =>
  (
    await row<{ drawing: Drawing | null }>(`select ${DRAWING} as drawing from ${DRAWING_FOR} where h.id = $1`, [
      id,
      personId,
    ])
  )?.drawing ?? undefined;

/** At most so many pages are made into one file. */
const MOST_SHEETS = 100;

/** The Sheets of a course's handouts that a person may see, in the order they are due. */
export const drawingsOf = async (courseId: string, personId: string): Promise<Drawing[]> =>
  (
    await rows<{ drawing: Drawing | null }>(
      `select ${DRAWING} as drawing from ${DRAWING_FOR}
       where h.course_id = $1 and ${IS_OPEN_TO} order by h.due_at, h.id limit ${MOST_SHEETS}`,
      [courseId, personId],
    )
  ).flatMap((r) => r.drawing ?? []);

/** What a student may know of a handout: nothing of the reference but what the Sheet prints. */
interface StudentHandout {
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
  /** The part with what is missing and extra, by the hash of its drawing; null or empty: none. */
  readonly picture: string | null;
}

/** The class on a handout, one row per student with the try that counts. */
export const classOn = (handoutId: string) =>
  rows<ClassRow>(
    `select p.id as person_id, p.name, s.id as submission, s.attempt, c.state, c.progress, c.trouble, s.handed_in_at,
       s.late_seconds, w.changed_at as seen_at, x.due_at as extended_to, r.grade, c.points,
       c.needs, c.accepted_at, c.returned_at, c.turn, g.name as group_name,
       case when r.id is not null then coalesce(r.hatched, h.pictured) end as picture
     from counting_tries k join handouts h on h.id = k.handout_id
     join people p on p.id = k.person_id left join groups g on g.id = k.group_id
     left join submissions s on s.id = k.counting
     left join checks c on c.submission_id = s.id
     left join reports r on r.id = c.report_id
     left join extensions x on x.handout_id = k.handout_id and x.person_id = p.id
     left join works w on w.handout_id = k.handout_id and w.person_id = p.id
     where k.handout_id = $1 order by p.name`,
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
