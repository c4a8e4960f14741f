import { z } from "zod";
import { WordSchema } from "@/core/grade/decision";
import { decide, historyOf } from "@/server/marking/marking";
import { body, endpoint, must, Refused } from "../../../endpoint";

const Said = z.strictObject({ id: z.uuid(), what: WordSchema });
/** So much can be said about one submission. */
const MOST_WORDS = 40;

/** A student's question about a result, or their answer. */
export const POST = endpoint<{ id: string }>("submission.talk", "id", async (person, { id }, request) => {
  const said = await body(request, Said, 20_000);
  const words = (await historyOf(id)).filter((e) => e.what.do === "say");
  if (words.length >= MOST_WORDS && !words.some((e) => e.id === said.id))
    throw new Refused(422, "Much has been written here. Talk to your instructor in class.");
  must(await decide(id, person, [said]));
});
