import { drawingsOf } from "@/server/handouts/handouts";
import { sheetFile } from "@/server/files/sheet-files";
import { endpoint, Refused } from "../../../endpoint";

/** The Sheets of all handouts of a course as one PDF, in the order they are due. */
export const GET = endpoint<{ id: string }>("course.view", "id", async (person, { id }) => {
  const drawings = await drawingsOf(id, person.id);
  if (!drawings.length) throw new Refused(404, "This course has no handouts with a Sheet yet.");
  return sheetFile(drawings, "pdf", true);
});
