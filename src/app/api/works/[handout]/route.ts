import { z } from "zod";
import { readPart } from "@/core/part/document";
import { saveWork } from "@/server/handouts";
import { permit } from "@/server/permissions";
import { body, endpoint, must, Refused } from "../../endpoint";

const Save = z.object({ document: z.unknown(), version: z.number().int() });

export const PUT = endpoint<{ handout: string }>(async (person, { handout }, request) => {
  await permit(person, "handout.work", handout);
  const { document, version } = await body(request, Save);
  const next = await saveWork(handout, person.id, must(readPart(document)), version);
  if (!next) throw new Refused(409, "This part was changed in another window. Reload to go on from there.");
  return { version: next };
});
