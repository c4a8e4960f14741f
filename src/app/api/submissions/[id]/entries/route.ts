import { z } from "zod";
import { DecisionSchema } from "@/core/grade/decision";
import { decide } from "@/server/marking/marking";
import { body, endpoint, must, mustBe } from "../../../endpoint";

const Entries = z.strictObject({
  /** Who decided it: a page left open must not sign with another's name. */
  owner: z.uuid(),
  entries: z
    .array(z.strictObject({ id: z.uuid(), what: DecisionSchema }))
    .min(1)
    .max(50),
});
const MOST_BYTES = 200_000;

/** Writes decisions into the history; sent again they are written once. */
export const POST = endpoint<{ id: string }>("submission.mark", "id", async (person, { id }, request) => {
  const { owner, entries } = await body(request, Entries, MOST_BYTES);
  mustBe(person, owner);
  const { history, mark, returned } = must(await decide(id, person, entries));
  return { history, mark, returned: returned ?? null };
});
