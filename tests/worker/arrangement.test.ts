import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "vitest";
import { closeDatabase, one, transaction } from "@/server/database";
import { createExercise, exercise, newExerciseIn, saveArrangement } from "@/server/exercises/exercises";
import { newExercise } from "@/core/check/exercise/exercise";
import type { Arrangement } from "@/core/sheet/layout/edit";

let course: string, id: string;
beforeAll(async () => {
  course = (await one<{ id: string }>("insert into courses (title) values ('Sheets') returning id")).id;
  const plain = newExercise();
  const sheet = { ...plain.sheet, projection: "third-angle" as const, owner: "Saltmarsh annex", notes: "Own notes" };
  id = await createExercise(course, { ...plain, title: "First", sheet });
});
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [course]);
  });
  await closeDatabase();
});

const arranged = (scale: number): Arrangement => ({
  sizes: [{ id: "s1", kind: "distance", from: ["a/start"], to: ["a/end"] }],
  sheet: {
    ...newExercise().sheet,
    layout: { scale, views: [{ key: "front", look: { from: "planned", name: "front" } }], places: {} },
  },
});

it("an arrangement is written once, however often it is sent, and never over another's", async () => {
  const save = { id: randomUUID(), version: 1 };
  const [first, again] = await Promise.all([
    saveArrangement(id, arranged(2), save),
    saveArrangement(id, arranged(2), save),
  ]);
  expect([first, again]).toEqual([2, 2]);
  // another window that stands on what was before
  expect(await saveArrangement(id, arranged(5), { id: randomUUID(), version: 1 })).toBeUndefined();
  const now = await exercise(id);
  expect([now.version, now.document.sheet.layout?.scale, now.document.sizes?.length]).toEqual([2, 2, 1]);
  expect(now.document.title).toBe("First");
});

it("a new exercise is titled and lettered as the course's last one, with notes of its own", async () => {
  const other = await createExercise(course, {
    ...newExercise(),
    title: "Second",
    sheet: { ...newExercise().sheet, projection: "third-angle", owner: "Saltmarsh annex", notes: "Its own" },
  });
  expect(other).toBeTypeOf("string");
  const { sheet } = await newExerciseIn(course);
  expect([sheet.projection, sheet.owner, sheet.notes, sheet.layout]).toEqual([
    "third-angle",
    "Saltmarsh annex",
    "",
    undefined,
  ]);
});
