import type { PartDocument } from "@/core/part/document";
import { solveSketch, type Diagnosis } from "@/core/sketch/solve";
import type { Sketch } from "@/core/sketch/sketch";
import type { LengthUnit } from "@/core/units/quantity";

/** Diagnoses are asked for often and by identity. */
const diagnoses = new WeakMap<Sketch, Diagnosis | null>();
export function diagnosisOf(sketch: Sketch, unit: LengthUnit): Diagnosis | undefined {
  if (!diagnoses.has(sketch)) {
    const r = solveSketch(sketch, unit);
    diagnoses.set(sketch, r.ok ? r.value : null);
  }
  return diagnoses.get(sketch) ?? undefined;
}

export const sketchOf = (d: PartDocument, id: string): Sketch | undefined => {
  const s = d.steps.find((x) => x.id === id);
  return s?.kind === "sketch" ? s.sketch : undefined;
};
