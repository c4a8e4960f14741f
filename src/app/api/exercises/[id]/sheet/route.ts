import { exercise } from "@/server/exercises/exercises";
import { SHEET_FILES, sheetFile } from "@/server/files/sheet-files";
import { endpoint, fileOf, isToShow, Refused } from "../../../endpoint";

/** The Sheet of an exercise as a file, as it was drawn last. */
export const GET = endpoint<{ id: string }>("exercise.edit", "id", async (_, { id }, request) => {
  const { prepared } = await exercise(id);
  const drawing = prepared && "drawing" in prepared ? prepared.drawing : undefined;
  if (!drawing)
    throw new Refused(404, "There is no Sheet yet, or it was drawn before there were files of it. Save once.");
  return sheetFile([drawing], fileOf(request, SHEET_FILES), isToShow(request));
});
