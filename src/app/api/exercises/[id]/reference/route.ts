import { z } from "zod";
import { readPart } from "@/core/part/document";
import { saveReference } from "@/server/exercises/exercises";
import { body, endpoint, must, mustBe, Refused, VERSION } from "../../../endpoint";

const Save = z.object({ id: z.uuid(), document: z.unknown(), version: VERSION, owner: z.uuid() });

export const PUT = endpoint<{ id: string }>("exercise.edit", "id", async (person, { id }, request) => {
  const { document, owner, ...save } = await body(request, Save);
  mustBe(person, owner);
  const version = await saveReference(id, must(readPart(document)), { ...save, by: person.id });
  if (!version) throw new Refused(409, "This part was changed in another window. Reload to go on from there.");
  return { version, at: new Date().toISOString() };
});
