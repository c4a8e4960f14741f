import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import { saveExercise } from "@/server/exercises/changes";
import { createExercise, exercise, exerciseTitlesOf, measuringOf, savePrepared } from "@/server/exercises/exercises";
import { keepLinePicture, keepLines, linePicture } from "@/server/files/line-pictures";
import { revisionsOfExercise } from "@/server/library/library";
import { sweep } from "@/server/upkeep/removal";

let course: string;
beforeAll(async () => {
  course = (await one<{ id: string }>("insert into courses (title) values ('Pictures') returning id")).id;
});
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [course]);
  });
  await closeDatabase();
});

const drawing = () => `<svg><title>${randomUUID()}</title></svg>`;
const old = (hash: string) =>
  rows("update line_pictures set made_at = now() - interval '3 days' where hash = $1", [hash]);

it("is kept once by what is in it, whoever keeps it at the same time", async () => {
  const svg = drawing();
  const hashes = await Promise.all([keepLinePicture(svg), keepLinePicture(svg), keepLinePicture(svg)]);
  expect(new Set(hashes).size).toBe(1);
  expect(await linePicture(hashes[0]!)).toBe(svg);
});

it("of a part like its reference there is none, of one that cannot be drawn an empty one", async () => {
  expect(await keepLines(null)).toEqual({ plain: null, hatched: null });
  expect(await keepLines(undefined)).toEqual({ plain: "", hatched: "" });
  const [plain, hatched] = [drawing(), drawing()];
  const kept = await keepLines({ plain, hatched });
  expect([await linePicture(kept.plain!), await linePicture(kept.hatched!)]).toEqual([plain, hatched]);
});

it("goes with what was measured: into lists, and what was before into the revisions", async () => {
  const id = await createExercise(course, { ...newExercise(), title: "First" });
  const measured = { sheet: { svg: "", scale: "1:1", projection: "first-angle", dimensions: [] }, volume: 1 };
  const [first, second] = [drawing(), drawing()];
  await savePrepared(id, 1, { ...measured, picture: first } as never);
  const listed = async () => (await exerciseTitlesOf(course)).find((e) => e.id === id)!.pictured!;
  expect(await linePicture(await listed())).toBe(first);
  // the drawing itself stands in no answer
  expect(JSON.stringify(await measuringOf(id))).not.toContain("<svg>");
  const was = await listed();
  const version = (await saveExercise(id, { ...(await exercise(id)).document, title: "Second" }, 1))!;
  await savePrepared(id, version, { ...measured, picture: second } as never);
  expect(await linePicture(await listed())).toBe(second);
  const revisions = await revisionsOfExercise(id);
  expect(revisions.map((r) => r.pictured)).toEqual([await listed(), was]);
});

it("is swept away when nothing shows it any more, and not before", async () => {
  const [shown, gone, fresh] = await Promise.all([drawing(), drawing(), drawing()].map((svg) => keepLinePicture(svg)));
  await createExercise(course, newExercise());
  await rows("update exercises set pictured = $2 where course_id = $1", [course, shown]);
  await Promise.all([old(shown!), old(gone!)]);
  await sweep();
  expect(await linePicture(shown!)).toBeDefined();
  expect(await linePicture(fresh!)).toBeDefined();
  expect(await linePicture(gone!)).toBeUndefined();
});
