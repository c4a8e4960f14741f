import { z } from "zod";
import { PartFileSchema } from "@/core/check/part-file";
import { handout } from "@/server/handouts";
import { handIn } from "@/server/submissions";
import { body, endpoint, mustBe, Refused, VERSION } from "../../../endpoint";
import { Shown } from "../../../shown";

const Meant = z.object({
  id: z.uuid(),
  version: VERSION,
  owner: z.uuid(),
  shown: Shown.optional(),
  file: PartFileSchema.optional(),
});

export const POST = endpoint<{ id: string }>("handout.work", "id", async (person, { id }, request) => {
  const { owner, ...meant } = await body(request, Meant);
  mustBe(person, owner);
  const r = await handIn(await handout(id), person.id, meant);
  if (!r.ok) throw new Refused(r.refusal.code === "other-version" ? 409 : 422, r.refusal.sentence);
  return r.value;
});
