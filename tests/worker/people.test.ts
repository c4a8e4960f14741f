import { spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import pg from "pg";
import { afterAll, afterEach, beforeEach, describe, expect, it } from "vitest";
import { readRoster } from "@/core/roster/roster";
import { closeDatabase, connectionString, one, rows, transaction } from "@/server/database";
import { environment } from "@/server/environment";
import { accept, courseByCode, invite, offerOf, openByCode } from "@/server/people/invitations";
import { migrate, TooNew } from "@/server/upkeep/migrate";
import { letters } from "@/server/people/outbox";
import {
  hashPassword,
  initialsOf,
  makeKey,
  makePerson,
  openSession,
  personByPassword,
  personOfSession,
  useKey as spend,
  type Person,
} from "@/server/people/people";
import { makeCourse } from "@/server/courses/courses";
import { admit, permit } from "@/server/permissions";
import { changeMember, enrol, enrolByAddress, enrolByCode } from "@/server/people/roster";
import { knownOf, membersOf, remind, takeIn } from "@/server/people/roster";
import { dropPerson, newStudent } from "./sample";

let course: { id: string; title: string };
const made: string[] = [],
  courses: string[] = [];
const tag = () => randomUUID().slice(0, 8);
beforeEach(async () => {
  course = await one("insert into courses (title) values ('For one test') returning id, title");
});
afterEach(async () => {
  const people = await rows<{ id: string }>("select person_id as id from enrolments where course_id = $1", [course.id]);
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = any($1)", [[course.id, ...courses.splice(0)]]);
  });
  for (const id of new Set([...people.map((p) => p.id), ...made.splice(0)])) await dropPerson(id);
});
afterAll(closeDatabase);
const someone = async (role = "student") => {
  const p = await newStudent(course.id, role);
  made.push(p.id);
  return p;
};

describe("a roster taken in", () => {
  it("of 500 rows makes people, groups and letters once, however often it is taken in", async () => {
    const mark = tag();
    const cells = [
      ["name", "email", "group"],
      ...Array.from({ length: 500 }, (_, i) => [`Person ${i}`, `p${i}-${mark}@c.example`, `g${i % 5}`]),
    ];
    const { lines, faults } = readRoster(cells);
    expect(faults).toEqual([]);
    expect(await takeIn(course, lines)).toEqual({ people: 500, enrolled: 500 });
    expect(await takeIn(course, lines)).toEqual({ people: 0, enrolled: 0 });
    const known = await knownOf(
      course.id,
      lines.map((l) => l.email),
    );
    expect(known.filter((k) => k.in_course).length).toBe(500);
    const groups = await rows("select 1 from groups where course_id = $1", [course.id]);
    expect(groups.length).toBe(5);
    const post = await one<{ n: number }>("select count(*)::int as n from outbox where address like $1", [
      `%-${mark}@c.example`,
    ]);
    expect(post.n).toBe(500);
  });
  it("is taken whole or not at all", async () => {
    const good = { name: "A", email: `a-${tag()}@c.example`, role: "student" as const };
    const bad = { name: "B", email: `b-${tag()}@c.example`, role: "king" as never };
    await expect(takeIn(course, [good, bad])).rejects.toThrow();
    expect(await membersOf(course.id)).toEqual([]);
    expect(await rows("select 1 from people where email = $1", [good.email])).toEqual([]);
  });
  it("keeps the role that somebody has, and brings back who left", async () => {
    const p = await someone("assistant");
    await takeIn(course, [{ ...p, role: "student" }]);
    expect((await membersOf(course.id))[0]).toMatchObject({ role: "assistant", left_at: null });
    await changeMember(course.id, (await someone("instructor")).id, {
      role: "instructor",
      groupId: null,
      hasLeft: false,
    });
    await changeMember(course.id, p.id, { role: "assistant", groupId: null, hasLeft: true });
    await takeIn(course, [{ ...p, role: "student" }]);
    expect((await membersOf(course.id)).find((m) => m.id === p.id)).toMatchObject({ role: "student", left_at: null });
  });
});

describe("an invitation", () => {
  const terms = { role: "assistant" as const, groupId: null, days: 3, mostUses: 1 };
  it("for one is taken up by one, though two open it at once", async () => {
    const by = await someone("instructor"),
      token = await invite(course.id, by, terms);
    const others = await Promise.all([0, 1].map(async () => ({ ...(await outsider()) })));
    const came = await Promise.all(others.map((p) => accept(token, p)));
    expect(came.filter((c) => c === course.id).length).toBe(1);
    expect(await offerOf(token)).toBeUndefined();
  });
  it("opened again by who is in takes nobody's place", async () => {
    const by = await someone("instructor"),
      token = await invite(course.id, by, { ...terms, mostUses: 2 });
    const p = await outsider();
    for (let i = 0; i < 3; i++) expect(await accept(token, p)).toBe(course.id);
    expect(await offerOf(token)).toBeDefined();
  });
  it("by a code holds while the course is open", async () => {
    const code = (await openByCode(course.id, true))!;
    expect(await openByCode(course.id, true)).toBe(code);
    expect((await courseByCode(`${code.slice(0, 3)} ${code.slice(3).toLowerCase()}`))?.id).toBe(course.id);
    await openByCode(course.id, false);
    expect(await courseByCode(code)).toBeUndefined();
  });
  const outsider = async () => {
    const p = await someone();
    await rows("delete from enrolments where person_id = $1", [p.id]);
    return p;
  };
});

describe("a course", () => {
  it("keeps its last instructor, whatever two do at once", async () => {
    const [a, b] = [await someone("instructor"), await someone("instructor")];
    const leave = (id: string) => changeMember(course.id, id, { role: "instructor", groupId: null, hasLeft: true });
    const done = await Promise.all([leave(a.id), leave(b.id)]);
    expect(done.filter(Boolean).length).toBe(1);
    const left = (await membersOf(course.id)).filter((m) => m.left_at === null);
    expect(left.length).toBe(1);
  });
  it("takes nobody into the group of another course", async () => {
    const p = await someone();
    await someone("instructor");
    const other = await one<{ id: string }>(
      `with c as (insert into courses (title) values ('Other') returning id)
       insert into groups (course_id, name) select id, 'x' from c returning id`,
    );
    await changeMember(course.id, p.id, { role: "student", groupId: other.id, hasLeft: false });
    expect((await membersOf(course.id)).find((m) => m.id === p.id)!.group_id).toBeNull();
    await enrol(course.id, p.id, "student", null);
    await rows("delete from groups where id = $1", [other.id]);
  });
});

describe("an address that nobody has proved", () => {
  const stranger = async () => {
    // whoever has a class's link may type any address
    const made = await makePerson({ name: "Anybody", email: `dean-${tag()}@c.example`, passwordHash: "x" });
    await enrol(course.id, made!.id, "student", null);
    return made!;
  };
  const other = async () => {
    const id = await makeCourse({ title: `C ${tag()}`, term: "", timeZone: "UTC" });
    courses.push(id);
    return { id, title: "C" };
  };
  const may = (p: Person, id: string) =>
    permit(p, "course.view", id).then(
      () => true,
      () => false,
    );

  it("gives the class of the link alone; a role given to it holds once the letter is answered", async () => {
    const p = await stranger(),
      [taught, heard] = [await other(), await other()];
    await transaction((client) => enrolByAddress(taught, p, "instructor", null, client));
    await takeIn(heard, [{ name: "The Dean", email: p.email, role: "student", group: "" } as never]);
    // the same roster once more promises nothing twice
    await takeIn(heard, [{ name: "The Dean", email: p.email, role: "student", group: "" } as never]);
    expect([await may(p, course.id), await may(p, taught.id), await may(p, heard.id)]).toEqual([true, false, false]);
    expect((await membersOf(taught.id))[0]).toMatchObject({ promised: true, role: "instructor" });
    const sent = (await letters()).filter((l) => l.address === p.email);
    expect(sent).toHaveLength(2);
    const key = /\/key\/(\S+)/.exec(sent[0]!.body)![1]!;
    expect((await spend(key, await hashPassword("the dean's own")))?.id).toBe(p.id);
    expect([await may(p, taught.id), await may(p, heard.id)]).toEqual([true, true]);
    expect(await permit(p, "course.teach", taught.id)).toBe("instructor");
    // who typed the address first is out
    expect(await personByPassword(p.email, "x")).toBeUndefined();
  });
  it("of somebody who came by a letter is proved: they are in at once", async () => {
    const p = await stranger(),
      there = await other();
    await spend(await makeKey(p.id, "reset"), await hashPassword("a password of mine"));
    await transaction((client) => enrolByAddress(there, p, "assistant", null, client));
    expect(await permit(p, "course.mark", there.id)).toBe("assistant");
  });
});

describe("people of the demo", () => {
  it("come in by their known password only where the demo is on, and their sessions hold only there", async () => {
    const password = "everybody knows it",
      email = `demo-${tag()}@c.example`;
    const made = (await makePerson({ name: "Demo", email, passwordHash: await hashPassword(password), demo: true }))!;
    await enrol(course.id, made.id, "student", null);
    const { token } = await openSession(made.id);
    const stands = async () => [
      (await personByPassword(email, password))?.id,
      (await personOfSession(token))?.id,
      (await admit(token, "course.view", course.id))?.id,
    ];
    expect(await stands()).toEqual([made.id, made.id, made.id]);
    delete process.env["CALIPER_DEMO"];
    try {
      expect(await stands()).toEqual([undefined, undefined, undefined]);
    } finally {
      process.env["CALIPER_DEMO"] = "1";
    }
  });
});

it("the code on the board does not bring back who was taken out by hand; their instructor does", async () => {
  const p = await someone();
  expect(await enrolByCode(course.id, p.id)).toBe(true);
  await someone("instructor");
  await changeMember(course.id, p.id, { role: "student", groupId: null, hasLeft: true });
  expect(await enrolByCode(course.id, p.id)).toBe(false);
  expect((await membersOf(course.id)).find((m) => m.id === p.id)!.left_at).not.toBeNull();
  await changeMember(course.id, p.id, { role: "student", groupId: null, hasLeft: false });
  expect(await enrolByCode(course.id, p.id)).toBe(true);
});

describe("a way back in", () => {
  it("works once, ends every session, and makes the other ways useless", async () => {
    const p = await someone();
    const { token } = await openSession(p.id);
    const [first, second] = [await makeKey(p.id, "reset"), await makeKey(p.id, "reset")];
    const hash = await hashPassword("another password");
    expect((await spend(first, hash))?.id).toBe(p.id);
    expect(await spend(first, hash)).toBeUndefined();
    expect(await spend(second, hash)).toBeUndefined();
    expect(await personOfSession(token)).toBeUndefined();
    expect((await personByPassword(p.email, "another password"))?.id).toBe(p.id);
  });
  it("is sent a few times an hour at most, and nobody is told of it", async () => {
    const p = await someone();
    for (let i = 0; i < 9; i++) await remind(p.email);
    await remind(`nobody-${tag()}@c.example`);
    const sent = (await letters()).filter((l) => l.address === p.email);
    expect(sent.length).toBe(5);
    // nobody comes in by a password that was never chosen
    await rows("update people set password_hash = null where id = $1", [p.id]);
    expect(await personByPassword(p.email, "none")).toBeUndefined();
  });
});

describe("a database", () => {
  it("is brought up to date by one of those that start at once, and not by an older program", async () => {
    const name = `migrated_${tag()}`,
      own = process.env["DATABASE_URL"]!;
    const client = new pg.Client({ connectionString: own });
    await client.connect();
    await client.query(`create database ${name}`);
    const url = new URL(own);
    url.pathname = `/${name}`;
    process.env["DATABASE_URL"] = url.href;
    try {
      expect(connectionString()).toBe(url.href);
      await Promise.all([migrate(), migrate(), migrate()]);
      const fresh = new pg.Client({ connectionString: url.href });
      await fresh.connect();
      expect((await fresh.query("select 1 from migrations")).rowCount).toBeGreaterThan(3);
      // the demo goes, and nothing else
      await fresh.query(
        "insert into people (name, email, demo) values ('Demo', 'd@x.example', true), ('Own', 'o@x', false)",
      );
      await fresh.query("insert into courses (title, demo) values ('Demo', true), ('Own', false)");
      await fresh.query(
        "insert into enrolments (course_id, person_id, role) select c.id, p.id, 'student' from courses c, people p",
      );
      const remove = ["--import", import.meta.resolve("tsx"), "src/demo/remove.ts"];
      expect(spawnSync(process.execPath, remove, { env: process.env, encoding: "utf8" }).stderr).toBe("");
      const left = await fresh.query("select name from people union all select title from courses");
      expect(left.rows.map((r) => r.name)).toEqual(["Own", "Own"]);
      await fresh.query("insert into migrations (name) values ('999_from_next_year.sql')");
      await fresh.end();
      await expect(migrate()).rejects.toThrow(TooNew);
    } finally {
      process.env["DATABASE_URL"] = own;
      await client.query(`drop database ${name} with (force)`);
      await client.end();
    }
  });
});

describe("the settings", () => {
  it("are told by name where they are wrong", () => {
    expect(() => environment({ DATABASE_URL: "mysql://x", PORT: "many", SMTP_URL: "smtp://ok" })).toThrow(
      /DATABASE_URL is an address that begins with postgres:.*\n?.*PORT is a number/s,
    );
    expect(environment({ PORT: "", CALIPER_DEMO: "1" })).toMatchObject({ CALIPER_DEMO: "1" });
  });
});

describe("initials", () => {
  it.each([
    ["Ottoline Marsh", "OM"],
    ["Zoë von Ångström", "ZÅ"],
    ["Madonna", "M"],
    ["jörg", "J"],
  ])("of %s are %s", (name, initials) => expect(initialsOf(name)).toBe(initials));
});
