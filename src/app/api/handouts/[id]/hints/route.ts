import { z } from "zod";
import { handout } from "@/server/handouts/handouts";
import { openHint } from "@/server/handouts/hints";
import { body, endpoint, mustBe } from "../../../endpoint";

const Next = z.object({ nth: z.number().int().min(1).max(50), owner: z.uuid() });

/** Opens the next hint; what is not open yet stays on the server. */
export const POST = endpoint<{ id: string }>("handout.work", "id", async (person, { id }, request) => {
  const { nth, owner } = await body(request, Next);
  mustBe(person, owner);
  return openHint(await handout(id), person.id, nth);
});
