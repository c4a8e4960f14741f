import { prepared, row } from "./database";
import { IS_OPEN_TO } from "./handouts/open-to";
import { fingerprint, isDemoMode, type Person } from "./people/people";

export type CourseRole = "instructor" | "assistant" | "student";
export type Role = CourseRole | "administrator";

/** What an action is done to. */
type Thing = "course" | "exercise" | "handout" | "submission" | "open submission" | "server";

interface Rule {
  readonly on: Thing;
  /** Who may, whoever the thing belongs to. */
  readonly any?: readonly Role[];
  /** Who may where it is their own: handed in by them. */
  readonly own?: readonly Role[];
  readonly what: string;
}

/**
 * Who may do what: the whole of it. Printed in docs/permissions.md, and tested row by row. In another course nobody may
 * anything; whoever has left a course is in another.
 */
export const PERMISSIONS = {
  "course.view": { on: "course", any: ["instructor", "assistant", "student"], what: "See the course and its handouts" },
  "course.teach": { on: "course", any: ["instructor"], what: "Make exercises and issue handouts" },
  "course.people": { on: "course", any: ["instructor"], what: "Look after its people, groups and invitations" },
  "exercise.edit": { on: "exercise", any: ["instructor"], what: "See and change an exercise and its reference" },
  "handout.view": { on: "handout", any: ["instructor", "assistant", "student"], what: "Read a handout and its Sheet" },
  "handout.mark": { on: "handout", any: ["instructor", "assistant"], what: "See how the class stands" },
  "handout.teach": { on: "handout", any: ["instructor"], what: "Give extensions, check a class again" },
  "handout.work": { on: "handout", any: ["student"], what: "Work on a handout and hand in" },
  "submission.view": {
    on: "submission",
    any: ["instructor", "assistant"],
    own: ["student"],
    what: "Read a result",
  },
  "submission.mark": {
    on: "submission",
    any: ["instructor", "assistant"],
    what: "Mark, and see the reference beside it",
  },
  "submission.talk": { on: "open submission", own: ["student"], what: "Ask about a result, and answer" },
  "course.mark": { on: "course", any: ["instructor", "assistant"], what: "Read the gradebook" },
  "server.run": { on: "server", any: ["administrator"], what: "Look after the server, all people and all courses" },
} as const satisfies Record<string, Rule>;

export type Action = keyof typeof PERMISSIONS;

const OF_SUBMISSION = `select e.role, s.person_id = $2 as own from submissions s join handouts h on h.id = s.handout_id
  join enrolments e on e.course_id = h.course_id where s.id = $1 and e.person_id = $2 and e.left_at is null`;

/** The role of person $2 at thing $1, and whether it is theirs. */
const STANDING: Record<Thing, string> = {
  course:
    "select e.role, false as own from enrolments e where e.course_id = $1 and e.person_id = $2 and e.left_at is null",
  exercise: `select e.role, false as own from exercises x join enrolments e on e.course_id = x.course_id
    where x.id = $1 and e.person_id = $2 and e.left_at is null`,
  handout: `select e.role, false as own from handouts h join enrolments e on e.course_id = h.course_id
    where h.id = $1 and e.person_id = $2 and e.left_at is null and ${IS_OPEN_TO}`,
  submission: OF_SUBMISSION,
  // of a handout that its student has, and that was not taken back
  "open submission": `${OF_SUBMISSION} and ${IS_OPEN_TO}`,
  // the thing is the person: who looks after the server
  server: "select 'administrator' as role, true as own from people where id = $1 and id = $2 and administrator",
};

const listed = (roles: readonly Role[] = []) => `array[${roles.map((r) => `'${r}'`).join(", ")}]::text[]`;

/** Gives the role when person $2 may do this to thing $1. */
function ruleOf(action: Action): string {
  const { on, any, own }: Rule = PERMISSIONS[action];
  const may = `role = any(${listed(any)}) or (own and role = any(${listed(own)}))`;
  return `select role from (${STANDING[on]}) standing where ${may}`;
}

/** Nothing is here for this person: it does not exist, or is not theirs. Both answer alike. */
export class Denied extends Error {
  constructor() {
    super("There is nothing here for you. The address may be mistyped, or it belongs to someone else.");
  }
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** The one permission check. @returns the person's role there @throws Denied */
export async function permit(person: Person, action: Action, id: string): Promise<Role> {
  const found = UUID.test(id) ? await row<{ role: Role }>(ruleOf(action), [id, person.id]) : undefined;
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
    `select p.id, p.name, p.email, (${ruleOf(action).replaceAll("$2", "p.id")} limit 1) as role
     from sessions s join people p on p.id = s.person_id
     where s.token_hash = $2 and s.expires_at > now() and (not p.demo or $3)`,
    [UUID.test(id) ? id : null, fingerprint(token), isDemoMode()],
  );
  if (!found) return undefined;
  const { role, ...person } = found;
  if (!role) throw new Denied();
  return person;
}
