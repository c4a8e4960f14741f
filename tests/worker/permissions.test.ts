import { readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { emptyPart } from "@/core/part/document";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import type { Handout } from "@/server/handouts/handouts";
import { openSession, type Person } from "@/server/people/people";
import { admit, Denied, permit, PERMISSIONS, type Action, type Role } from "@/server/permissions";
import { permissionTable } from "@/server/permission-table";
import { dropPerson, handoutNumbered, newStudent, newSubmission } from "./sample";

/** Everybody there can be: of the course, of another one, who has left, and who looks after the server. */
const WHO = ["instructor", "assistant", "student", "other student", "left", "elsewhere", "administrator"] as const;
type Who = (typeof WHO)[number];
const people = {} as Record<Who, Person>;
const things = {} as Record<"course" | "exercise" | "handout" | "submission", string>;
let h: Handout, elsewhere: string;

beforeAll(async () => {
  h = await handoutNumbered("WS-08");
  elsewhere = (await one<{ id: string }>("insert into courses (title) values ('Elsewhere') returning id")).id;
  for (const who of ["instructor", "assistant", "student"] as const) people[who] = await newStudent(h.course_id, who);
  people["other student"] = await newStudent(h.course_id);
  people.left = await newStudent(h.course_id, "instructor");
  await rows("update enrolments set left_at = now() where person_id = $1", [people.left.id]);
  people.elsewhere = await newStudent(elsewhere, "instructor");
  people.administrator = await newStudent(elsewhere, "student");
  await rows("update people set administrator = true where id = $1", [people.administrator.id]);
  const ofHandout = await one<{ exercise_id: string }>("select exercise_id from handouts where id = $1", [h.id]);
  const submission = await newSubmission(h.id, people.student.id, emptyPart("a", "mm", { name: "Steel", density: 8 }));
  Object.assign(things, { course: h.course_id, exercise: ofHandout.exercise_id, handout: h.id, submission });
});
afterAll(async () => {
  for (const p of Object.values(people)) await dropPerson(p.id);
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [elsewhere]);
  });
  await closeDatabase();
});

/** By the table alone, without any of the check's own code. */
function may(who: Who, action: Action): boolean {
  const rule: { on: string; any?: readonly Role[]; own?: readonly Role[] } = PERMISSIONS[action];
  if (rule.on === "server") return who === "administrator";
  if (who === "left" || who === "elsewhere" || who === "administrator") return false;
  const role = who === "other student" ? "student" : who;
  return (rule.any ?? []).includes(role) || (who === "student" && (rule.own ?? []).includes(role));
}

describe("the table of permissions", () => {
  const actions = Object.keys(PERMISSIONS) as Action[];
  it.each(actions.flatMap((action) => WHO.map((who) => [action, who] as const)))("%s: %s", async (action, who) => {
    const person = people[who],
      { on } = PERMISSIONS[action],
      thing = on === "server" ? person.id : things[on === "open submission" ? "submission" : on];
    const { token } = await openSession(person.id);
    if (may(who, action)) {
      expect(await permit(person, action, thing)).toBeTypeOf("string");
      expect(await admit(token, action, thing)).toEqual(person);
    } else {
      await expect(permit(person, action, thing)).rejects.toThrow(Denied);
      await expect(admit(token, action, thing)).rejects.toThrow(Denied);
    }
  });
  it.each(actions)("%s is nothing for nobody, and of nothing", async (action) => {
    expect(await admit(undefined, action, things.course)).toBeUndefined();
    expect(await admit("no-such-session", action, things.course)).toBeUndefined();
    for (const id of ["", "x", "00000000-0000-4000-8000-000000000000"])
      await expect(permit(people.instructor, action, id)).rejects.toThrow(Denied);
  });
  it("is printed in the documentation as it is", () => {
    expect(readFileSync("docs/permissions.md", "utf8")).toBe(permissionTable());
  });
});
