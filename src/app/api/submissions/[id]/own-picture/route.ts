import { handout } from "@/server/handouts/handouts";
import { ownPicture } from "@/server/marking/results";
import { submission } from "@/server/tries/submissions";
import { endpoint, Refused } from "../../../endpoint";

/** A student's own part as it was checked: facets of theirs alone. */
export const GET = endpoint<{ id: string }>("submission.talk", "id", async (_, { id }) => {
  const picture = await ownPicture(id, await handout((await submission(id)).handout_id));
  if (!picture) throw new Refused(404, "There is no picture of this part to see.");
  return picture;
});
