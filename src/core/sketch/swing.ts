import type { LengthUnit } from "@/core/units/quantity";
import { rankOf } from "./rank";
import { drivingSizes } from "./sizes";
import type { Sketch } from "./sketch";
import { drivingRelations, preparedClusters, solveRelations, withCoordinates } from "./relations";
import { survives } from "./diagnose";
import { referenceFault } from "./reference-fault";

/**
 * How a sketch looks while what is loose swings: a small motion along every freedom, each at its own pace.
 * @param reach how far it swings, mm @returns a sketch for any moment (radians), or undefined when nothing is loose
 */
export function swinging(sketch: Sketch, unit: LengthUnit, reach: number): ((moment: number) => Sketch) | undefined {
  const sizes = drivingSizes(sketch, unit);
  if (referenceFault(sketch) || !sizes.ok) return undefined;
  const solution = solveRelations(sketch, drivingRelations(sketch), sizes.value);
  if (!solution) return undefined;
  const { system } = solution,
    rest = Float64Array.from(system.x);
  const motions = preparedClusters(system).flatMap((prepared) => {
    const { dependent, motions: found } = rankOf(
      prepared,
      system.x,
      prepared.cluster.equations.map((_, i) => i),
    );
    const real = dependent.length ? found.filter((m) => survives(prepared, system.x, system.scale, m)) : found;
    // every motion is made to reach as far
    return real.map((m) => ({ slots: prepared.cluster.unknowns, m: m.map((v) => v / Math.max(...m.map(Math.abs))) }));
  });
  if (!motions.length) return undefined;
  return (moment) => {
    const x = Float64Array.from(rest);
    motions.forEach(({ slots, m }, k) => {
      const a = reach * Math.sin(moment * (1 + 0.17 * (k % 5)) + k);
      slots.forEach((s, i) => (x[s]! += a * m[i]!));
    });
    return withCoordinates(sketch, { ...system, x });
  };
}
