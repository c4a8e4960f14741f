import { z } from "zod";
import { readPart } from "@/core/part/document";
import { saveReference } from "@/server/exercises/changes";
import { body, endpoint, must, mustBe, Refused, VERSION } from "../../../endpoint";

const Save = z.object({ id: z.uuid(), document: z.unknown(), version: VERSION, owner: z.uuid() });

/** The reference part, as its Bench has it. */
export const PUT = endpoint<{ id: string }>("exercise.edit", "id", async (person, { id }, request) => {
  const { document, owner, ...save } = await body(request, Save);
  mustBe(person, owner);
  const { odds, version } = must(await saveReference(id, must(readPart(document)), { ...save, by: person.id }));
  if (odds.length)
    throw new Refused(409, "This part was changed in another window. Reload to go on from there.", { version });
  return { version, at: new Date().toISOString() };
});
