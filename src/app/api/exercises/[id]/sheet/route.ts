import { z } from "zod";
import { ExerciseSchema } from "@/core/check/exercise/exercise";
import { exercise, saveArrangement } from "@/server/exercises/exercises";
import { SHEET_FILES, sheetFile } from "@/server/files/sheet-files";
import { body, endpoint, fileOf, isToShow, mustBe, Refused, VERSION } from "../../../endpoint";

/** The Sheet of an exercise as a file, as it was drawn last. */
export const GET = endpoint<{ id: string }>("exercise.edit", "id", async (_, { id }, request) => {
  const { prepared } = await exercise(id);
  const drawing = prepared && "drawing" in prepared ? prepared.drawing : undefined;
  if (!drawing)
    throw new Refused(404, "There is no Sheet yet, or it was drawn before there were files of it. Save once.");
  return sheetFile([drawing], fileOf(request, SHEET_FILES), isToShow(request));
});

const Save = z.object({
  id: z.uuid(),
  document: ExerciseSchema.pick({ sizes: true, sheet: true }).required(),
  version: VERSION,
  owner: z.uuid(),
});

/** How the Sheet is arranged, as the drawing board has it. */
export const PUT = endpoint<{ id: string }>("exercise.edit", "id", async (person, { id }, request) => {
  const { document, owner, ...save } = await body(request, Save);
  mustBe(person, owner);
  const version = await saveArrangement(id, document, { ...save, by: person.id });
  if (!version) throw new Refused(409, "This exercise was changed in another window. Reload to go on from there.");
  return { version, at: new Date().toISOString() };
});
