import { z } from "zod";
import { handout } from "@/server/handouts/handouts";
import { practise, practising } from "@/server/works/practices";
import { body, endpoint, must, mustBe, VERSION } from "../../../endpoint";

const Asked = z.strictObject({ id: z.uuid(), version: VERSION, owner: z.uuid() });

/** How the newest check before handing in stands. */
export const GET = endpoint<{ id: string }>("handout.work", "id", async (person, { id }) =>
  practising(await handout(id), person.id),
);

/** Has the part checked as it stands; nothing of it is handed in. */
export const POST = endpoint<{ id: string }>("handout.work", "id", async (person, { id }, request) => {
  const { owner, ...asked } = await body(request, Asked, 2000);
  mustBe(person, owner);
  return must(await practise(await handout(id), person.id, asked));
});
