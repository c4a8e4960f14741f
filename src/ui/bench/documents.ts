import type { PartDocument } from "@/core/part/document";
import { findRegions, type Regions } from "@/core/sketch/regions";
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

/** So are regions, with every frame of a turning view. */
const found = new WeakMap<Sketch, Regions>();
export function regionsOf(sketch: Sketch): Regions {
  const known = found.get(sketch) ?? findRegions(sketch);
  found.set(sketch, known);
  return known;
}

export const sketchOf = (d: Pick<PartDocument, "steps">, id: string): Sketch | undefined => {
  const s = d.steps.find((x) => x.id === id);
  return s?.kind === "sketch" ? s.sketch : undefined;
};
