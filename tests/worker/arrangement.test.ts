import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "vitest";
import { closeDatabase, one, transaction } from "@/server/database";
import { changeThings, changesSince } from "@/server/exercises/changes";
import {
  beginMeasuring,
  createExercise,
  exercise,
  finishMeasuring,
  openMeasuring,
  newExerciseIn,
  savePrepared,
} from "@/server/exercises/exercises";
import { dequeue } from "@/server/queue";
import { newExercise } from "@/core/check/exercise/exercise";

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

const size = { id: "s1", kind: "distance", from: ["a/start"], to: ["a/end"] };
const save = (version: number) => ({ id: randomUUID(), version });
const changed = async (...of: Parameters<typeof changeThings>) => {
  const r = await changeThings(...of);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};

it("a change is written once, however often it is sent", async () => {
  const once = save(1),
    things = { sizes: ["s1"], "sizes/s1": size };
  const [first, again] = await Promise.all([changed(id, things, once), changed(id, things, once)]);
  expect([first.version, again.version]).toEqual([2, 2]);
  const now = await exercise(id);
  expect([now.version, now.document.sizes?.length, now.document.title]).toEqual([2, 1, "First"]);
});

it("of two that stand on the same both are written where they touch different things, told to each other", async () => {
  const { version } = await exercise(id);
  const [a, b] = await Promise.all([
    changed(id, { title: "Second" }, save(version)),
    changed(id, { "sheet/owner": "The annexe" }, save(version)),
  ]);
  const { document } = await exercise(id);
  expect([document.title, document.sheet.owner]).toEqual(["Second", "The annexe"]);
  const later = a.version > b.version ? a : b;
  expect(Object.keys(later.theirs)).toHaveLength(1);
  expect((await changesSince(id, version)).theirs).toEqual({ title: "Second", "sheet/owner": "The annexe" });
});

it("of two that change the same the second is not written, and is told what stands", async () => {
  const { version } = await exercise(id);
  await changed(id, { title: "Third" }, save(version));
  const late = await changed(id, { title: "Fourth", brief: "Lost?" }, save(version));
  expect([late.odds, late.theirs]).toEqual([["title"], { title: "Third" }]);
  expect((await exercise(id)).document).toMatchObject({ title: "Third", brief: "" });
});

it("what makes no exercise is refused in a sentence, and nothing is written", async () => {
  const { version } = await exercise(id);
  for (const things of [{ title: "" }, { units: "ell" }, { "rubric/mass": { id: "mass" } }, { "nowhere/at": 1 }]) {
    const r = await changeThings(id, things, save(version));
    expect(r.ok).toBe(false);
  }
  expect((await exercise(id)).version).toBe(version);
});

it("words leave what was measured as it is; what is drawn is measured anew", async () => {
  const runs = async () =>
    (await one<{ n: number }>("select count(*)::int as n from runs where kind = 'measure' and exercise_id = $1", [id]))
      .n;
  const { version } = await exercise(id);
  await savePrepared(id, version, { trouble: "It has no solid." });
  const before = await runs();
  const said = await changed(id, { brief: "Model it." }, save(version));
  expect((await exercise(id)).prepared_version).toBe(said.version);
  expect(await runs()).toBe(before);
  await changed(id, { "sheet/notes": "Break edges." }, save(said.version));
  expect(await runs()).toBe(before + 1);
});

/** A measuring that this test does, and no grading process that may run beside it. */
async function begunHere() {
  await transaction(async (client) => {
    await openMeasuring(id, client);
    await dequeue({ task: "prepare-exercise", exercise: id }, client);
  });
  return beginMeasuring(id);
}

it("words changed while it is measured leave that to go on, and what it finds holds for them", async () => {
  const { version } = await exercise(id);
  const drawn = await changed(id, { "sheet/notes": "Measured." }, save(version));
  const ticket = await begunHere();
  const said = await changed(id, { brief: "Meanwhile." }, save(drawn.version));
  await finishMeasuring(ticket!, id, drawn.version, { trouble: "It has no solid." });
  const now = await exercise(id);
  expect([now.prepared_version, now.prepared]).toEqual([said.version, { trouble: "It has no solid." }]);
  // what is drawn otherwise is measured otherwise: the one that was begun gives way
  const first = await changed(id, { "sheet/notes": "Once." }, save(said.version));
  const old = await begunHere();
  await changed(id, { "sheet/notes": "Twice." }, save(first.version));
  await finishMeasuring(old!, id, first.version, { trouble: "Old." });
  expect((await exercise(id)).prepared).not.toEqual({ trouble: "Old." });
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
