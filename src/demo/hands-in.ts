import { randomUUID } from "node:crypto";
import type { Answers } from "@/core/check/exercise/question";
import type { PartDocument } from "@/core/part/document";
import type { Handout } from "@/server/handouts/handouts";
import { handIn } from "@/server/tries/submissions";
import { openWork, saveWork } from "@/server/works/works";

/** A part, given what its work is called. */
export type Makes = (name: string) => PartDocument;

/** Saves a part into somebody's work. @returns the version */
export async function worksOn(h: Handout, person: string, make: Makes): Promise<number> {
  const work = await openWork(h, person);
  const save = { id: randomUUID(), document: make(work.document.name), version: work.version, window: "demo" };
  return (await saveWork(h.id, person, save)).version;
}

/** The same, handed in. @returns the submission */
export async function handsIn(h: Handout, person: string, make: Makes, answers?: Answers): Promise<string> {
  const version = await worksOn(h, person, make);
  const r = await handIn(h, person, { id: randomUUID(), version, answers });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value.submission;
}
