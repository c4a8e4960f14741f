import { z } from "zod";
import { PartFileSchema } from "@/core/check/given/part-file";
import { AnswersSchema } from "@/core/check/exercise/question";
import { handout } from "@/server/handouts/handouts";
import { handIn } from "@/server/tries/submissions";
import { body, endpoint, MOST_HAND_IN, mustBe, Refused, VERSION } from "../../../endpoint";
import { Shown } from "../../../shown";

const Meant = z.object({
  id: z.uuid(),
  version: VERSION,
  owner: z.uuid(),
  shown: Shown.optional(),
  file: PartFileSchema.optional(),
  answers: AnswersSchema.optional(),
  figuresOnly: z.boolean().optional(),
});

export const POST = endpoint<{ id: string }>("handout.work", "id", async (person, { id }, request) => {
  const { owner, ...meant } = await body(request, Meant, MOST_HAND_IN);
  mustBe(person, owner);
  const r = await handIn(await handout(id), person.id, meant);
  if (!r.ok) throw new Refused(r.refusal.code === "other-version" ? 409 : 422, r.refusal.sentence);
  return r.value;
});
