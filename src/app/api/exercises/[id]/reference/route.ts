import { z } from "zod";
import { readPart } from "@/core/part/document";
import { saveReference } from "@/server/exercises";
import { permit } from "@/server/permissions";
import { body, endpoint, must, Refused } from "../../../endpoint";

const Save = z.object({ document: z.unknown(), version: z.number().int() });

export const PUT = endpoint<{ id: string }>(async (person, { id }, request) => {
  await permit(person, "exercise.edit", id);
  const { document, version } = await body(request, Save);
  const next = await saveReference(id, must(readPart(document)), version);
  if (!next) throw new Refused(409, "This part was changed in another window. Reload to go on from there.");
  return { version: next };
});
