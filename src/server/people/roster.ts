import type pg from "pg";
import type { RosterLine } from "@/core/roster/roster";
import { one, row, rows, transaction } from "../database";
import { environment } from "../environment";
import { post } from "./outbox";
import { isProved, makeKey, makePerson, personByEmail, type Person } from "./people";
import type { CourseRole } from "../permissions";

export interface Member {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly initials: string;
  readonly role: CourseRole;
  readonly group_id: string | null;
  readonly group: string | null;
  readonly left_at: Date | null;
  /** They get this role once they have answered a letter to their address. */
  readonly promised: boolean;
  /** Whether they have chosen a password yet. */
  readonly has_entered: boolean;
}
export interface Group {
  readonly id: string;
  readonly name: string;
}

/** Everybody of a course, those who left last. */
export const membersOf = (courseId: string) =>
  rows<Member>(
    `select p.id, p.name, p.email, p.initials, e.role, e.group_id, g.name as "group", e.left_at, e.promised,
       p.password_hash is not null as has_entered
     from enrolments e join people p on p.id = e.person_id left join groups g on g.id = e.group_id
     where e.course_id = $1 order by e.left_at is not null, e.role, p.name`,
    [courseId],
  );

export const groupsOf = (courseId: string) =>
  rows<Group>("select id, name from groups where course_id = $1 order by name", [courseId]);

/** Brings somebody into a course, or back into it; a role they have there already stays unless it is told anew. */
export const enrol = (
  courseId: string,
  personId: string,
  role: CourseRole,
  groupId: string | null,
  client?: pg.PoolClient,
) =>
  rows(
    `insert into enrolments (course_id, person_id, role, group_id) values ($1, $2, $3, $4)
     on conflict (course_id, person_id) do update set left_at = null,
       role = case when enrolments.left_at is null then enrolments.role else excluded.role end,
       group_id = coalesce(excluded.group_id, enrolments.group_id)`,
    [courseId, personId, role, groupId],
    client,
  );

/**
 * Gives a role to an address: whoever has it is in at once where they have shown that it is theirs, and else once they
 * answer the letter that goes to it. Somebody who came by a class's link may have typed another's address.
 */
export async function enrolByAddress(
  course: { readonly id: string; readonly title: string },
  person: Person,
  role: CourseRole,
  groupId: string | null,
  client: pg.PoolClient,
): Promise<void> {
  // who was in this course before, with no less, is known here
  const isKnown = await row(
    `select 1 from enrolments where course_id = $1 and person_id = $2 and not promised
       and (role = $3 or $3 = 'student')`,
    [course.id, person.id, role],
    client,
  );
  if (isKnown || (await isProved(person.id, client)))
    return void (await enrol(course.id, person.id, role, groupId, client));
  const promised = await row(
    `insert into enrolments (course_id, person_id, role, group_id, left_at, promised)
     values ($1, $2, $3, $4, now(), true)
     on conflict (course_id, person_id) do update set promised = true, role = excluded.role
       where enrolments.left_at is not null and not enrolments.promised
     returning 1`,
    [course.id, person.id, role, groupId],
    client,
  );
  if (promised) await welcome(person, course.title, client);
}

/** Comes into a course by the code on the board. @returns false where they were taken out by hand: that stays so */
export async function enrolByCode(courseId: string, personId: string): Promise<boolean> {
  const isOut = await row(
    "select 1 from enrolments where course_id = $1 and person_id = $2 and left_at is not null and not promised",
    [courseId, personId],
  );
  if (isOut) return false;
  await enrol(courseId, personId, "student", null);
  return true;
}

/** What a person is in a course; the last instructor stays one. @returns false where that would leave it without */
export async function changeMember(
  courseId: string,
  personId: string,
  change: { readonly role: CourseRole; readonly groupId: string | null; readonly hasLeft: boolean },
): Promise<boolean> {
  return transaction(async (client) => {
    await client.query("select 1 from courses where id = $1 for update", [courseId]);
    await client.query(
      `update enrolments set role = $3, group_id = (select id from groups where id = $4 and course_id = $1),
         left_at = case when $5 then coalesce(left_at, now()) end, promised = promised and $5
       where course_id = $1 and person_id = $2`,
      [courseId, personId, change.role, change.groupId, change.hasLeft],
    );
    const teaching = await row(
      "select 1 from enrolments where course_id = $1 and role = 'instructor' and left_at is null limit 1",
      [courseId],
      client,
    );
    if (teaching) return true;
    await client.query("rollback");
    await client.query("begin");
    return false;
  });
}

/** The group of a name, made where there is none. */
const groupCalled = async (courseId: string, name: string, client: pg.PoolClient): Promise<string> =>
  (
    await one<{ id: string }>(
      `insert into groups (course_id, name) values ($1, $2)
       on conflict (course_id, name) do update set name = excluded.name returning id`,
      [courseId, name],
      client,
    )
  ).id;

export const makeGroup = (courseId: string, name: string) =>
  transaction((client) => groupCalled(courseId, name, client));
export const dropGroup = (courseId: string, groupId: string) =>
  rows("delete from groups where course_id = $1 and id = $2", [courseId, groupId]);

/** Which addresses of a roster are known, and which are in the course already. */
export const knownOf = (courseId: string, emails: readonly string[]) =>
  rows<{ email: string; name: string; in_course: boolean }>(
    `select p.email, p.name, e.person_id is not null and e.left_at is null as in_course
     from people p left join enrolments e on e.person_id = p.id and e.course_id = $1 where p.email = any($2)`,
    [courseId, emails],
  );

/** Takes a whole roster in, or nothing of it. New people get a letter with their way in. @returns how many were new */
export async function takeIn(
  course: { readonly id: string; readonly title: string },
  lines: readonly RosterLine[],
): Promise<{ people: number; enrolled: number }> {
  return transaction(async (client) => {
    const sum = { people: 0, enrolled: 0 };
    for (const line of lines) {
      const made = await makePerson(line, client);
      const person =
        made ?? (await one<Person>("select id, name, email from people where email = lower($1)", [line.email], client));
      if (made) {
        sum.people++;
        await welcome(made, course.title, client);
      }
      // nobody comes in as who was just made, but by the letter
      const before = await row(
        "select 1 from enrolments where course_id = $1 and person_id = $2 and left_at is null",
        [course.id, person.id],
        client,
      );
      if (!before) sum.enrolled++;
      const group = line.group ? await groupCalled(course.id, line.group, client) : null;
      if (made) await enrol(course.id, person.id, line.role, group, client);
      else await enrolByAddress(course, person, line.role, group, client);
    }
    return sum;
  });
}

/** Makes somebody an instructor who is not here yet: called by their address until they say otherwise. */
export const welcomeNew = (course: { readonly id: string; readonly title: string }, email: string): Promise<void> =>
  transaction(async (client) => {
    const made = await makePerson({ name: email.split("@")[0]!, email }, client);
    if (!made) return;
    await enrol(course.id, made.id, "instructor", null, client);
    await welcome(made, course.title, client);
  });

/** The address of a page as a letter names it. */
const linkTo = (path: string): string => `${environment().CALIPER_ADDRESS ?? "http://127.0.0.1:3000"}${path}`;

async function welcome(person: Person, courseTitle: string, client: pg.PoolClient): Promise<void> {
  const token = await makeKey(person.id, "first", client);
  await post(
    {
      personId: person.id,
      address: person.email,
      subject: `Your way into ${courseTitle}`,
      body:
        `Dear ${person.name},\n\nyou are on the roster of ${courseTitle}. Choose a password here to come in:\n\n` +
        `${linkTo(`/key/${token}`)}\n\nThe link holds for two weeks and works once.\n`,
    },
    client,
  );
}

/** Sends a way back in, where there is such a person; nobody is told whether there is. */
export async function remind(email: string): Promise<void> {
  const person = await personByEmail(email);
  if (!person) return;
  const recent = await one<{ n: number }>(
    "select count(*)::int as n from keys where person_id = $1 and made_at > now() - interval '1 hour'",
    [person.id],
  );
  if (recent.n >= MOST_REMINDERS) return;
  const token = await makeKey(person.id, "reset");
  await post({
    personId: person.id,
    address: person.email,
    subject: "A new password",
    body:
      `Dear ${person.name},\n\nsomebody asked for a new password for this address. Choose one here:\n\n` +
      `${linkTo(`/key/${token}`)}\n\nThe link holds for two hours and works once. ` +
      "If it was not you, nothing needs to be done.\n",
  });
}
const MOST_REMINDERS = 5;
