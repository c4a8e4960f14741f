import { randomInt } from "node:crypto";
import { row, rows, transaction } from "../database";
import { fingerprint, newToken, type Person } from "./people";
import type { CourseRole } from "../permissions";
import { enrol } from "./roster";

export interface Invitation {
  readonly id: string;
  readonly role: CourseRole;
  readonly group: string | null;
  readonly uses: number;
  readonly most_uses: number;
  readonly expires_at: Date;
}

/** Makes a link that brings people into a course. @returns the token; the database holds only its fingerprint */
export async function invite(
  courseId: string,
  by: Person,
  i: { readonly role: CourseRole; readonly groupId: string | null; readonly days: number; readonly mostUses: number },
): Promise<string> {
  const token = newToken();
  await rows(
    `insert into invitations (course_id, role, group_id, token_hash, made_by, expires_at, most_uses)
     values ($1, $2, (select id from groups where id = $3 and course_id = $1), $4, $5,
       now() + make_interval(days => $6), $7)`,
    [courseId, i.role, i.groupId, fingerprint(token), by.id, i.days, i.mostUses],
  );
  return token;
}

const OPEN = "withdrawn_at is null and expires_at > now() and uses < most_uses";

export const invitationsOf = (courseId: string) =>
  rows<Invitation>(
    `select i.id, i.role, g.name as "group", i.uses, i.most_uses, i.expires_at from invitations i
     left join groups g on g.id = i.group_id where i.course_id = $1 and ${OPEN} order by i.made_at desc limit 50`,
    [courseId],
  );
export const withdraw = (courseId: string, id: string) =>
  rows("update invitations set withdrawn_at = now() where course_id = $1 and id = $2", [courseId, id]);

interface Offer {
  readonly course_id: string;
  readonly title: string;
  readonly role: CourseRole;
  readonly group_id: string | null;
}

/** What a link offers; undefined where it is spent, withdrawn or over. */
export const offerOf = (token: string) =>
  row<Offer>(
    `select i.course_id, c.title, i.role, i.group_id from invitations i join courses c on c.id = i.course_id
     where i.token_hash = $1 and ${OPEN}`,
    [fingerprint(token)],
  );

/** Comes into a course by a link. @returns the course, undefined where the link holds no more */
export const accept = (token: string, person: Person): Promise<string | undefined> =>
  transaction(async (client) => {
    const there = await row<Offer>(
      `select i.course_id, i.role, i.group_id from invitations i where i.token_hash = $1 and ${OPEN} for update`,
      [fingerprint(token)],
      client,
    );
    if (!there) return undefined;
    const known = await row(
      "select 1 from enrolments where course_id = $1 and person_id = $2 and left_at is null",
      [there.course_id, person.id],
      client,
    );
    // who opens the link twice is in already, and takes nobody's place
    if (known) return there.course_id;
    await client.query("update invitations set uses = uses + 1 where token_hash = $1", [fingerprint(token)]);
    await enrol(there.course_id, person.id, there.role, there.group_id, client);
    return there.course_id;
  });

/** Letters and figures that are not taken for each other when a class reads them off the board. */
const CLEAR = "ACDEFHJKLMNPRTUVWXY3479";
const CODE_LENGTH = 7;

/** Opens a course to whoever types its code, or shuts it. @returns the code */
export async function openByCode(courseId: string, isOpen: boolean): Promise<string | null> {
  if (!isOpen) {
    await rows("update courses set code = null where id = $1", [courseId]);
    return null;
  }
  for (;;) {
    const code = Array.from({ length: CODE_LENGTH }, () => CLEAR[randomInt(CLEAR.length)]).join("");
    const made = await row(
      `update courses set code = coalesce(code, $2) where id = $1
         and not exists (select 1 from courses where code = $2) returning code`,
      [courseId, code],
    );
    if (made) return (made as { code: string }).code;
  }
}
export const courseByCode = (code: string) =>
  row<{ id: string; title: string }>("select id, title from courses where code = upper($1)", [
    code.replace(/[\s-]/g, ""),
  ]);
