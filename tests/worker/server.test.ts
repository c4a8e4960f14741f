import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import { closeDatabase, row, rows, transaction } from "@/server/database";
import { forStudent, handout } from "@/server/handouts/handouts";
import { issueHandout } from "@/server/handouts/handout-terms";
import {
  closeSession,
  hashPassword,
  openSession,
  personByPassword,
  personOfSession,
  type Person,
} from "@/server/people/people";
import { Denied, permit } from "@/server/permissions";
import { saveExercise, saveReference } from "@/server/exercises/changes";
import { createExercise, exercise, savePrepared } from "@/server/exercises/exercises";
import { handoutNumbered } from "./sample";

afterAll(closeDatabase);

const person = async (name: string) =>
  (await row<Person>("select id, name, email from people where name = $1", [name]))!;
let teacher: Person, student: Person, other: Person, stranger: Person, foot: string, own: string;
beforeAll(async () => {
  [teacher, student, other] = (await Promise.all(["Hedda Lark", "Linnea Holt", "Barnaby Teal"].map(person))) as [
    Person,
    Person,
    Person,
  ];
  stranger = (await row<Person>(
    `insert into people (name, email, password_hash)
       values ('Nobody Here', 'nobody@elsewhere.example', $1) on conflict (email) do update
       set name = excluded.name returning id, name, email`,
    [await hashPassword("a word")],
  ))!;
  foot = (await row<{ id: string }>("select id from handouts where exercise->>'number' = 'WS-08'"))!.id;
  own = (await row<{ id: string }>("select id from submissions where handout_id = $1 and person_id = $2", [
    foot,
    other.id,
  ]))!.id;
});
const allowed = (p: Person, action: Parameters<typeof permit>[1], id: string) =>
  permit(p, action, id).then(
    (r) => r as string,
    (e) => (e instanceof Denied ? "denied" : Promise.reject(e as Error)),
  );

describe("permissions", () => {
  it("let people do what is theirs and nothing else", async () => {
    expect(await allowed(teacher, "handout.teach", foot)).toBe("instructor");
    expect(await allowed(student, "handout.view", foot)).toBe("student");
    expect(await allowed(student, "handout.teach", foot)).toBe("denied");
    expect(await allowed(teacher, "handout.work", foot)).toBe("denied");
    expect(await allowed(stranger, "handout.view", foot)).toBe("denied");
    expect(await allowed(other, "submission.view", own)).toBe("student");
    expect(await allowed(student, "submission.view", own)).toBe("denied");
    expect(await allowed(other, "submission.mark", own)).toBe("denied");
    expect(await allowed(teacher, "submission.mark", own)).toBe("instructor");
  });
  it.each(["", "1", "' or true --", "00000000-0000-4000-8000-000000000000"])(
    "an id that is none or nobody's (%j) is denied, not an error",
    async (id) => {
      expect(await allowed(teacher, "submission.view", id)).toBe("denied");
    },
  );
});

describe("sign-in", () => {
  it("takes the right password only, and stores it as argon2id", async () => {
    expect((await personByPassword("Nobody@Elsewhere.example", "a word"))?.id).toBe(stranger.id);
    expect(await personByPassword("nobody@elsewhere.example", "another")).toBeUndefined();
    expect(await personByPassword("no.one@elsewhere.example", "a word")).toBeUndefined();
    expect((await row<{ h: string }>("select password_hash as h from people where id = $1", [stranger.id]))!.h).toMatch(
      /^\$argon2id\$/,
    );
  });
  it("sessions open, are found by their token only, and close", async () => {
    const { token } = await openSession(student.id);
    expect((await personOfSession(token))?.id).toBe(student.id);
    expect(await personOfSession(`${token}x`)).toBeUndefined();
    expect(
      await rows("select 1 from sessions where encode(token_hash, 'escape') like '%' || $1 || '%'", [token]),
    ).toEqual([]);
    await closeSession(token);
    expect(await personOfSession(token)).toBeUndefined();
  });
});

describe("an exercise", () => {
  const steps = [
    { id: "s", kind: "sketch", sketch: { plane: { base: "top" }, curves: [], constraints: [], dimensions: [] } },
  ];
  const brass = { name: "Brass CuZn39Pb3", density: 8.47 };
  const measured = {
    sheet: { svg: "<svg/>", scale: "1:1", projection: "first-angle", dimensions: [] },
    volume: 1,
    area: 1,
    mass: 1,
  };
  const make = async () => createExercise((await handout(foot)).course_id, newExercise());
  const drop = (id: string) =>
    transaction(async (client) => {
      await client.query("select allow_deleting()");
      await client.query("delete from exercises where id = $1", [id]);
    });

  it("is saved over the version it was filled from only", async () => {
    const id = await make();
    const before = (await exercise(id)).document;
    expect(await saveExercise(id, { ...before, title: "one" }, 1)).toBe(2);
    expect(await saveExercise(id, { ...before, title: "two" }, 1)).toBeUndefined();
    expect((await exercise(id)).document.title).toBe("one");
    await drop(id);
  });
  it("takes material and unit from its first reference, and keeps them from then on", async () => {
    const id = await make();
    const reference = (await exercise(id)).document.reference;
    await saveReference(id, { ...reference, steps, material: brass, units: "in" } as never, {
      id: randomUUID(),
      version: 1,
    });
    expect((await exercise(id)).document).toMatchObject({ material: brass, units: "in" });
    await saveReference(id, { ...reference, steps } as never, { id: randomUUID(), version: 2 });
    expect((await exercise(id)).document).toMatchObject({ material: brass, units: "in", reference: { units: "mm" } });
    await drop(id);
  });
  it("is issued exactly as it was measured, or not at all", async () => {
    const id = await make();
    const due = new Date(Date.now() + 1e6);
    expect(await issueHandout(id, { dueAt: due })).toBeUndefined();
    await savePrepared(id, 1, { trouble: "It has no solid." });
    expect(await issueHandout(id, { dueAt: due })).toBeUndefined();
    await savePrepared(id, 1, measured as never);
    expect(await issueHandout(id, { dueAt: due }, 2)).toBeUndefined();
    const h = await handout((await issueHandout(id, { dueAt: due }, 1))!);
    expect([h.revision, h.sheet]).toEqual([1, measured.sheet]);
    // changed since: what was measured is of another revision
    await saveExercise(id, { ...newExercise(), title: "later" }, 1);
    expect(await issueHandout(id, { dueAt: due })).toBeUndefined();
    // a slow measurement of an older version does not undo a newer one
    await savePrepared(id, 2, measured as never);
    await savePrepared(id, 1, { trouble: "old" });
    expect((await exercise(id)).prepared_version).toBe(2);
    await drop(id);
  });
});

describe("what a student is sent of a handout", () => {
  it("holds nothing of the reference but the Sheet", async () => {
    const h = await handout(foot);
    const text = JSON.stringify(forStudent(h));
    expect(text).not.toContain("extrude1");
    expect(text).not.toContain("reference");
    expect(text).not.toContain('"steps"');
    expect(Object.keys(forStudent(h)).sort()).toEqual([
      "brief",
      "course",
      "dueAt",
      "figures",
      "id",
      "material",
      "number",
      "sheet",
      "title",
      "trouble",
      "units",
    ]);
  });
  it("holds the questions it asks, and nothing of their answers", async () => {
    const { exercise: housing, ...rest } = await handoutNumbered("WS-06");
    expect(Object.keys(housing.wanted ?? {})).toHaveLength(2);
    const { figures } = forStudent({ ...rest, exercise: housing });
    expect(figures.questions.map((q) => Object.keys(q).sort())).toEqual([
      ["id", "quantity", "title"],
      ["id", "quantity", "title"],
    ]);
  });
});
