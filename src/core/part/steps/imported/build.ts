import { readSoundStep } from "../../step-file";
import { done, refuse } from "@/core/units/refusal";
import type { Build } from "../step";
import type { ImportedStep } from "./schema";

/** The body of a file stands beside what is there. Its faces have no story: they are numbered as the file has them. */
export const buildImported: Build<ImportedStep> = ({ kernel, bodies }, step) => {
  const read = readSoundStep(kernel, step.step);
  if (!read.ok) return refuse(read.refusal.code, read.refusal.sentence, [step.id]);
  const { shape, names } = read.value;
  const own = names.map((list) => list.map((n) => ({ ...n, step: step.id })));
  return done({ bodies: [...bodies, { id: step.id, solid: { shape, names: own } }] });
};
