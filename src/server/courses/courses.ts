import { one, rows, transaction } from "../database";
import { openMeasuring } from "../exercises/exercises";
import { IS_OPEN_TO } from "../handouts/open-to";
import type { Person } from "../people/people";
import type { Role } from "../permissions";

interface CourseRow {
  readonly id: string;
  readonly title: string;
  readonly term: string;
  readonly role: Role;
}
export const coursesOf = (person: Person) =>
  rows<CourseRow>(
    `select c.id, c.title, c.term, e.role from courses c join enrolments e on e.course_id = c.id
       where e.person_id = $1 and e.left_at is null order by c.title`,
    [person.id],
  );

export interface HandoutRow {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly due_at: Date;
  readonly students: number;
  readonly handed_in: number;
  readonly to_look_at: number;
  readonly mine: string | null;
  readonly my_submission: string | null;
  readonly my_points: number | null;
  readonly of: number | null;
  readonly my_late: boolean;
  /** Whose turn it is to say something about it. */
  readonly my_turn: "student" | "instructor" | null;
  /** When this person's part was changed last; null: not opened yet. */
  readonly worked_at: Date | null;
  /** How often this person has handed in, and how often they may. */
  readonly my_tries: number;
  readonly attempts_most: number | null;
  readonly opens_at: Date | null;
  readonly closes_at: Date | null;
  /** The clock its times were set by. */
  readonly time_zone: string;
  readonly withdrawn_at: Date | null;
  /** Its part as a line drawing, by its hash; and this person's own newest. Null or empty: there is none. */
  readonly pictured: string | null;
  readonly my_picture: string | null;
}

/** The time zone of the course an exercise belongs to. */
export const timeZoneOf = async (exerciseId: string): Promise<string> =>
  (
    await one<{ time_zone: string }>(
      "select c.time_zone from exercises x join courses c on c.id = x.course_id where x.id = $1",
      [exerciseId],
    )
  ).time_zone;

/**
 * Handouts of a course that this person may see, the nearest due first, with how far the class and this person are.
 * Of this person: how the newest try stands, and the points of the one that counts. Opens no report.
 */
export const handoutsOf = (courseId: string, person: Person) =>
  rows<HandoutRow>(
    `with mine as (
       select h.* from handouts h join enrolments e on e.course_id = h.course_id and e.person_id = $2
       where h.course_id = $1 and ${IS_OPEN_TO}
     ), standing as materialized (
       select k.handout_id, k.person_id, k.newest, k.counting, k.tries, c.needs,
         c.accepted_at is not null or c.returned_at is not null as is_seen
       from counting_tries k left join tries c on c.submission_id = k.counting where k.course_id = $1
     ), told as (
       select handout_id, count(*)::int as students, count(counting)::int as handed_in,
         (count(*) filter (where counting is not null and (cardinality(needs) > 0 or not is_seen)))::int as to_look_at
       from standing group by handout_id
     )
     select h.id, h.exercise->>'number' as number, h.exercise->>'title' as title,
       coalesce(x.due_at, h.due_at) as due_at, h.opens_at, h.closes_at, h.withdrawn_at,
       (select time_zone from courses where id = $1) as time_zone,
       coalesce(t.students, 0) as students,
       coalesce(t.handed_in, 0) as handed_in, coalesce(t.to_look_at, 0) as to_look_at,
       n.state as mine, m.newest as my_submission, c.shown_points as my_points, c.shown_of as of, c.turn as my_turn,
       coalesce(s.late_seconds > 0, false) as my_late,
       w.changed_at as worked_at, h.pictured,
       case when r.id is not null then coalesce(r.plain, h.pictured) end as my_picture,
       h.attempts_most, coalesce(m.tries, 0) as my_tries
     from mine h left join told t on t.handout_id = h.id
     left join standing m on m.handout_id = h.id and m.person_id = $2
     left join checks n on n.submission_id = m.newest
     left join tries nt on nt.submission_id = m.newest left join reports r on r.id = nt.report_id
     left join submissions s on s.id = m.counting left join tries c on c.submission_id = m.counting
     left join extensions x on x.handout_id = h.id and x.person_id = $2
     left join works w on w.handout_id = h.id and w.person_id = $2
     order by due_at, number`,
    [courseId, person.id],
  );

export const courseTitle = async (id: string): Promise<string> =>
  (await one<{ title: string }>("select title from courses where id = $1", [id])).title;

export interface CourseAbout {
  readonly id: string;
  readonly title: string;
  readonly term: string;
  readonly time_zone: string;
  readonly code: string | null;
}
export const courseAbout = (id: string) =>
  one<CourseAbout>("select id, title, term, time_zone, code from courses where id = $1", [id]);

export const makeCourse = async (c: { title: string; term: string; timeZone: string }): Promise<string> =>
  (
    await one<{ id: string }>("insert into courses (title, term, time_zone) values ($1, $2, $3) returning id", [
      c.title,
      c.term,
      c.timeZone,
    ])
  ).id;

/**
 * The same course for another term, with its exercises and its rubrics, without people, groups and handouts.
 */
export const copyCourse = (id: string, term: string): Promise<string> =>
  transaction(async (client) => {
    const made = await one<{ id: string }>(
      `insert into courses (title, term, time_zone)
       select title, $2, time_zone from courses where id = $1 returning id`,
      [id, term],
      client,
    );
    const copies = await rows<{ id: string; is_measured: boolean }>(
      `insert into exercises (course_id, document, pictured, prepared, prepared_version)
       select $2, document, pictured, case when prepared_version = version then prepared end,
         case when prepared_version = version then 1 else 0 end
       from exercises where course_id = $1 order by created_at returning id, prepared_version = 1 as is_measured`,
      [id, made.id],
      client,
    );
    // what was not measured when it was copied is measured here
    for (const c of copies) if (!c.is_measured) await openMeasuring(c.id, client);
    await client.query(
      "insert into rubrics (course_id, name, rubric) select $2, name, rubric from rubrics where course_id = $1",
      [id, made.id],
    );
    return made.id;
  });

/** All courses, for whoever looks after the server. */
export const allCourses = () =>
  rows<{ id: string; title: string; term: string; instructors: string | null; students: number }>(
    `select c.id, c.title, c.term,
       string_agg(p.name, ', ' order by p.name) filter (where e.role = 'instructor') as instructors,
       (count(*) filter (where e.role = 'student'))::int as students
     from courses c left join enrolments e on e.course_id = c.id and e.left_at is null
     left join people p on p.id = e.person_id and e.role = 'instructor'
     group by c.id order by c.term desc, c.title`,
  );

const MOST_FOUND = 100;

/** People of the server by what their name or address holds: the first hundred, and how many there are. */
export const peopleLike = (text: string) =>
  rows<{
    id: string;
    name: string;
    email: string;
    administrator: boolean;
    has_entered: boolean;
    courses: number;
    found: number;
  }>(
    `select p.id, p.name, p.email, p.administrator, p.password_hash is not null as has_entered,
       (select count(*)::int from enrolments e where e.person_id = p.id and e.left_at is null) as courses,
       (count(*) over ())::int as found
     from people p where p.name ilike $1 or p.email ilike $1 order by p.name limit ${MOST_FOUND}`,
    [`%${text.replace(/[\\%_]/g, "\\$&")}%`],
  );
