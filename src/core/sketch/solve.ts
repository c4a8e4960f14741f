import type { LengthUnit } from "@/core/units/quantity";
import type { Refusal } from "@/core/units/refusal";
import { KINDS } from "./constraints/registry";
import { type Dimension, type Sketch } from "./sketch";
import { drivingSizes } from "./sizes";
import { referenceFault } from "./reference-fault";
import { buildSystem } from "./system";
import { drivingRelations } from "./relations";
import { diagnose, type Diagnosis } from "./diagnose";
import { conflictIn, solveElsewhere, solveNear } from "./reach";

export type { Diagnosis, Way } from "./diagnose";

const UNSOLVED: Omit<Diagnosis, "sketch"> = {
  solved: false,
  freedoms: 0,
  clusters: [],
  loose: [],
  ways: [],
  looseRadii: [],
  agreeing: [],
  surplus: [],
  conflict: [],
};

/**
 * Solves a sketch and tells what is still loose, what agrees, what is surplus or what disagrees.
 * @returns a refusal only for a sketch that cannot be read (a lost reference, a size that is no number)
 */
export function solveSketch(
  sketch: Sketch,
  unit: LengthUnit,
): { ok: true; value: Diagnosis } | { ok: false; refusal: Refusal } {
  const fault = referenceFault(sketch);
  if (fault) return { ok: false, refusal: fault };
  const sizes = drivingSizes(sketch, unit);
  if (!sizes.ok) return sizes;
  const relations = drivingRelations(sketch);
  const solution = solveNear(sketch, relations, sizes.value);
  if (!solution) {
    const conflict = conflictIn(sketch, relations, sizes.value);
    const elsewhere = conflict.length ? undefined : solveElsewhere(sketch, relations, sizes.value)?.sketch;
    return { ok: true, value: { ...UNSOLVED, sketch, conflict, ...(elsewhere && { elsewhere }) } };
  }
  return { ok: true, value: diagnose(relations, solution) };
}

/** What a dimension measures as the sketch stands: mm or radians. Its references must be sound. */
export function measureDimension(sketch: Sketch, d: Pick<Dimension, "kind" | "of" | "flip" | "sides">): number {
  const system = buildSystem(sketch, [], new Map());
  return KINDS[d.kind].measure!(system.slots, d.of, system.x, { flip: d.flip, sides: d.sides });
}
