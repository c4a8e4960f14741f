import { rows } from "./database";
import type { Person } from "./people";
import type { Role } from "./permissions";

export interface CourseRow {
  readonly id: string;
  readonly title: string;
  readonly role: Role;
}
export const coursesOf = (person: Person) =>
  rows<CourseRow>(
    `select c.id, c.title, e.role from courses c join enrolments e on e.course_id = c.id
       where e.person_id = $1 order by c.title`,
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
  readonly has_work: boolean;
}

/** Handouts of a course, the nearest due first, with how far the class and this person are. */
export const handoutsOf = (courseId: string, person: Person) =>
  rows<HandoutRow>(
    `with latest as (
       select distinct on (s.handout_id, s.person_id) s.id, s.handout_id, s.person_id, s.state,
         (select r.grade from reports r where r.submission_id = s.id order by r.created_at desc limit 1) as grade
       from submissions s order by s.handout_id, s.person_id, s.attempt desc)
     select h.id, h.exercise->>'number' as number, h.exercise->>'title' as title, h.due_at,
       (select count(*)::int from enrolments e where e.course_id = h.course_id and e.role = 'student') as students,
       (select count(*)::int from latest l where l.handout_id = h.id) as handed_in,
       (select count(*)::int from latest l where l.handout_id = h.id
         and (l.state = 'failed' or (l.grade->>'points')::float < (l.grade->>'of')::float)) as to_look_at,
       m.state as mine, m.id as my_submission, (m.grade->>'points')::float as my_points, (m.grade->>'of')::float as of,
       exists (select 1 from works w where w.handout_id = h.id and w.person_id = $2) as has_work
     from handouts h left join latest m on m.handout_id = h.id and m.person_id = $2
     where h.course_id = $1 order by h.due_at`,
    [courseId, person.id],
  );
