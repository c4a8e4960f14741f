import { prepared, row } from "./database";
import { fingerprint, type Person } from "./people";

/** Each rule gives a row when person $2 may do this to thing $1. */
const RULES = {
  "course.view": "select role from enrolments where course_id = $1 and person_id = $2",
  "course.teach": "select role from enrolments where course_id = $1 and person_id = $2 and role = 'instructor'",
  "exercise.edit": `select e.role from exercises x join enrolments e on e.course_id = x.course_id
       where x.id = $1 and e.person_id = $2 and e.role = 'instructor'`,
  "handout.view":
    "select e.role from handouts h join enrolments e on e.course_id = h.course_id where h.id = $1 and e.person_id = $2",
  "handout.teach": `select e.role from handouts h join enrolments e on e.course_id = h.course_id
       where h.id = $1 and e.person_id = $2 and e.role = 'instructor'`,
  "handout.work": `select e.role from handouts h join enrolments e on e.course_id = h.course_id
       where h.id = $1 and e.person_id = $2 and e.role = 'student'`,
  "submission.view": `select e.role from submissions s join handouts h on h.id = s.handout_id
       join enrolments e on e.course_id = h.course_id and e.person_id = $2
       where s.id = $1 and (s.person_id = $2 or e.role = 'instructor')`,
  "submission.mark": `select e.role from submissions s join handouts h on h.id = s.handout_id
       join enrolments e on e.course_id = h.course_id and e.person_id = $2
       where s.id = $1 and e.role = 'instructor'`,
  // the thing is the person: who looks after the server
  "server.run": "select 'administrator' as role from people where id = $1 and id = $2 and administrator",
} as const;

export type Action = keyof typeof RULES;
export type Role = "instructor" | "student" | "administrator";

/** Nothing is here for this person: it does not exist, or is not theirs. Both answer alike. */
export class Denied extends Error {
  constructor() {
    super("There is nothing here for you. The address may be mistyped, or it belongs to someone else.");
  }
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** The one permission check. @returns the person's role there @throws Denied */
export async function permit(person: Person, action: Action, id: string): Promise<Role> {
  const found = UUID.test(id) ? await row<{ role: Role }>(RULES[action], [id, person.id]) : undefined;
  if (!found) throw new Denied();
  return found.role;
}

/**
 * Who holds this session, if they may do this to that: session and permission in one question, for what comes by the
 * hundred a second. @returns undefined where nobody is signed in @throws Denied
 */
export async function admit(token: string | undefined, action: Action, id: string): Promise<Person | undefined> {
  if (!token) return undefined;
  const found = await prepared<Person & { role: Role | null }>(
    `admit ${action}`,
    `select p.id, p.name, p.email, (${RULES[action].replaceAll("$2", "p.id")} limit 1) as role
     from sessions s join people p on p.id = s.person_id where s.token_hash = $2 and s.expires_at > now()`,
    [UUID.test(id) ? id : null, fingerprint(token)],
  );
  if (!found) return undefined;
  const { role, ...person } = found;
  if (!role) throw new Denied();
  return person;
}
