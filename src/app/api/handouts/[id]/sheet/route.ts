import { drawingOf } from "@/server/handouts/handouts";
import { SHEET_FILES, sheetFile } from "@/server/files/sheet-files";
import { endpoint, fileOf, isToShow, Refused } from "../../../endpoint";

/** The Sheet of a handout as a file: nothing in it but what is printed. */
export const GET = endpoint<{ id: string }>("handout.view", "id", async (person, { id }, request) => {
  const drawing = await drawingOf(id, person.id);
  if (!drawing) throw new Refused(404, "This handout was issued before there were files of its Sheet.");
  return sheetFile([drawing], fileOf(request, SHEET_FILES), isToShow(request));
});
