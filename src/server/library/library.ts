import type { Exercise } from "@/core/check/exercise/exercise";
import { one, row, rows } from "../database";
import { saveExercise } from "../exercises/changes";
import { createExercise, exercise } from "../exercises/exercises";
import type { Person } from "../people/people";
import { cut } from "@/core/units/text";

/** An exercise as the library lists it. */
export interface LibraryRow {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly brief: string;
  readonly course: string;
  readonly course_id: string;
  readonly term: string;
  readonly material: string;
  readonly tags: readonly string[];
  /** 1 to 3; null: not said. */
  readonly level: number | null;
  readonly minutes: number | null;
  readonly series: string | null;
  readonly place: number | null;
  /** Whether its numbers differ from student to student. */
  readonly varies: boolean;
  readonly issued: number;
  readonly changed_at: Date;
  /** Its part as a line drawing, by its hash; null: not measured yet. */
  readonly pictured: string | null;
}

/** What is looked for; what is left out matches all. */
export interface Wanted {
  readonly text?: string;
  readonly tag?: string;
  readonly level?: number | undefined;
}

/** A list shows so many at most; who looks for more, looks closer. */
export const MOST_LISTED = 300;

const pattern = (text: string) => `%${text.replace(/[\\%_]/g, "\\$&")}%`;

/** Exercises of every course that a person teaches, of whatever term. */
export const libraryOf = (person: Person, { text = "", tag = "", level }: Wanted) =>
  rows<LibraryRow>(
    `select x.id, d->>'number' as number, d->>'title' as title, d->>'brief' as brief, c.title as course,
       c.id as course_id, c.term, d->'material'->>'name' as material,
       array(select jsonb_array_elements_text(d->'about'->'tags')) as tags, (d->'about'->>'level')::int as level,
       (d->'about'->>'minutes')::int as minutes, d->'series'->>'name' as series, (d->'series'->>'place')::int as place,
       d->'varies' is not null as varies,
       (select count(*)::int from handouts h where h.exercise_id = x.id) as issued, x.changed_at, x.pictured
     from enrolments e join courses c on c.id = e.course_id join exercises x on x.course_id = c.id
     cross join lateral (select x.document as d) about
     where e.person_id = $1 and e.role = 'instructor' and e.left_at is null
       and ($2 = '%%' or concat_ws(' ', d->>'number', d->>'title', d->>'brief', d->'material'->>'name',
         d->'series'->>'name', d->'about'->>'tags') ilike $2)
       and ($3 = '' or d->'about'->'tags' ? $3) and ($4::int is null or (d->'about'->>'level')::int = $4)
     order by number, title, x.changed_at desc limit ${MOST_LISTED}`,
    [person.id, pattern(text), tag, level ?? null],
  );

/** Tags of those exercises, the commonest first. */
export const tagsOf = (person: Person) =>
  rows<{ tag: string; count: number }>(
    `select t.tag, count(*)::int as count
     from enrolments e join exercises x on x.course_id = e.course_id
     cross join lateral jsonb_array_elements_text(x.document->'about'->'tags') as t(tag)
     where e.person_id = $1 and e.role = 'instructor' and e.left_at is null
     group by t.tag order by count desc, t.tag limit 60`,
    [person.id],
  );

/** Courses that a person teaches: where an exercise can be put. */
export const taughtBy = (person: Person) =>
  rows<{ id: string; title: string; term: string }>(
    `select c.id, c.title, c.term from enrolments e join courses c on c.id = e.course_id
     where e.person_id = $1 and e.role = 'instructor' and e.left_at is null order by c.created_at desc, c.title`,
    [person.id],
  );

/** The same exercise once more, in a course. */
export async function duplicateInto(id: string, courseId: string): Promise<string> {
  const { document, course_id } = await exercise(id);
  const title = course_id === courseId ? cut(`${document.title} (copy)`, 120) : document.title;
  return createExercise(courseId, { ...document, title });
}

/** A revision of an exercise: what it was when a spell of changes ended, or when it was given out. */
export interface Revision {
  readonly version: number;
  readonly by_name: string | null;
  readonly made_at: Date;
  readonly document: Exercise;
  /** Handouts that were issued of it. */
  readonly issued: number;
  readonly pictured: string | null;
}

/** The revisions of an exercise, the one that stands first. */
export const revisionsOfExercise = (id: string) =>
  rows<Revision>(
    `select r.version, name_of(r.changed_by) as by_name, r.made_at, r.document, r.pictured,
       (select count(*)::int from handouts h where h.exercise_id = $1 and h.revision = r.version) as issued
     from (
       select version, changed_by, changed_at as made_at, document, pictured from exercises where id = $1
       union all
       select version, changed_by, made_at, document, pictured from exercise_revisions where exercise_id = $1
     ) r order by r.version desc limit 60`,
    [id],
  );

/** Brings a revision back as the newest. @returns its version, or undefined where another came in between */
export async function bringBack(id: string, version: number, by: string): Promise<number | undefined> {
  const was = await row<{ document: Exercise }>(
    "select document from exercise_revisions where exercise_id = $1 and version = $2",
    [id, version],
  );
  if (!was) return undefined;
  // what stands now is kept, however short a while it stood
  await rows(
    `insert into exercise_revisions (exercise_id, version, document, changed_by, made_at, pictured)
     select id, version, document, changed_by, changed_at, pictured from exercises where id = $1
     on conflict do nothing`,
    [id],
  );
  const { version: now } = await one<{ version: number }>("select version from exercises where id = $1", [id]);
  return saveExercise(id, was.document, now, by);
}
