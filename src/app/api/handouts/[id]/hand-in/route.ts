import { handout, openWork } from "@/server/handouts";
import { permit } from "@/server/permissions";
import { handIn } from "@/server/submissions";
import { endpoint, Refused } from "../../../endpoint";

export const POST = endpoint<{ id: string }>(async (person, { id }) => {
  await permit(person, "handout.work", id);
  const work = await openWork(await handout(id), person.id);
  if (!work.document.steps.length)
    throw new Refused(422, "There is nothing to hand in yet. Sketch and build the part first.");
  return { submission: await handIn(id, person.id, work.document) };
});
