import type { Exercise } from "@/core/check/exercise";
import type { Grade } from "@/core/grade/grade";
import { emptyPart, type PartDocument } from "@/core/part/document";
import type { Sheet } from "@/core/sheet/sheet";
import { one, row, rows } from "./database";
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
  /** Whether the program may propose what a student's sketch still lacks. */
  readonly may_define: boolean;
}

export const handout = async (id: string): Promise<Handout> =>
  await one<Handout>(
    `select h.id, h.course_id, c.title as course, h.exercise, h.revision, h.sheet, h.trouble, h.due_at,
       h.may_define
       from handouts h join courses c on c.id = h.course_id where h.id = $1`,
    [id],
  );

/**
 * Issues an exercise: exactly the revision whose Sheet and targets were measured is frozen with them, at once.
 * @param version the one that was looked at; left out: whatever it is now
 * @returns undefined where the exercise is another version, not measured yet, or in trouble
 */
export async function issueHandout(
  exerciseId: string,
  dueAt: Date,
  mayDefine = true,
  version?: number,
): Promise<string | undefined> {
  const made = await row<{ id: string }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, sheet, due_at, may_define)
     select id, course_id, document, version, prepared->'sheet', $2, $3 from exercises
     where id = $1 and prepared_version = version and prepared ? 'sheet' and ($4::int is null or version = $4)
     returning id`,
    [exerciseId, dueAt, mayDefine, version ?? null],
  );
  return made?.id;
}

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
  };
}

export interface Work {
  readonly document: PartDocument;
  readonly version: number;
}

/** A student's part on a handout; begun empty when opened first. */
export async function openWork(h: Handout, personId: string): Promise<Work> {
  const start = emptyPart(h.exercise.title, h.exercise.units, h.exercise.material);
  await rows("insert into works (handout_id, person_id, document) values ($1, $2, $3) on conflict do nothing", [
    h.id,
    personId,
    start,
  ]);
  return await one<Work>("select document, version from works where handout_id = $1 and person_id = $2", [
    h.id,
    personId,
  ]);
}

/** @returns the new version, or undefined when another window has saved since */
export async function saveWork(
  handoutId: string,
  personId: string,
  document: PartDocument,
  version: number,
): Promise<number | undefined> {
  const saved = await row<{ version: number }>(
    `update works set document = $3, version = version + 1, changed_at = now()
       where handout_id = $1 and person_id = $2 and version = $4 returning version`,
    [handoutId, personId, document, version],
  );
  return saved?.version;
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
  readonly handed_in_at: Date | null;
  readonly seen_at: Date | null;
}

/** The class on a handout, one row per student with the latest attempt. */
export const classOn = (handoutId: string) =>
  rows<ClassRow>(
    `select p.id as person_id, p.name, s.id as submission, s.attempt, s.state, s.progress, s.trouble, s.handed_in_at,
       w.changed_at as seen_at,
       (select r.grade from reports r where r.submission_id = s.id order by r.created_at desc limit 1) as grade
     from handouts h join enrolments e on e.course_id = h.course_id and e.role = 'student'
     join people p on p.id = e.person_id
     left join lateral (
       select * from submissions s where s.handout_id = h.id and s.person_id = p.id order by attempt desc limit 1
     ) s on true
     left join works w on w.handout_id = h.id and w.person_id = p.id
     where h.id = $1 order by p.name`,
    [handoutId],
  );
