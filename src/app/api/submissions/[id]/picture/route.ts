import { pictureOf } from "@/server/tries/submissions";
import { endpoint, Refused } from "../../../endpoint";

/** Holds the reference's facets: for instructors only. */
export const GET = endpoint<{ id: string }>("submission.mark", "id", async (_, { id }) => {
  const picture = await pictureOf(id);
  if (!picture) throw new Refused(404, "There is no picture yet: the submission has not been checked.");
  return picture;
});
