import { newton, prepare, type Prepared } from "./newton";
import { presolve } from "./presolve";
import { curveKind } from "./curves/registry";
import { arcSweep } from "./curves/arc";
import { ellipseSweep } from "./curves/ellipse";
import { type Curve, type Relation, type Sketch } from "./sketch";
import { buildSystem, clustersOf, type System } from "./system";
import { COLLAPSED } from "./tolerance";

/** Driving relations of a sketch: geometric ones first, so that a surplus falls on a dimension. */
export const drivingRelations = (sketch: Sketch): Relation[] => [
  ...sketch.constraints,
  ...sketch.dimensions.filter((d) => !d.reference),
];

/**
 * The sketch with the coordinates that the solver's vector holds; curves that stand where they stood stay the same
 * objects.
 */
export function withCoordinates(sketch: Sketch, system: System): Sketch {
  const { x, root, slotOf } = system;
  const at = (i: number) => x[root[i]!]! + 0;
  return {
    ...sketch,
    curves: sketch.curves.map((c) => {
      const s = slotOf.get(c.id)!,
        kind = curveKind(c);
      const before = kind.numbers(c),
        now = before.map((_, i) => at(s + i));
      return now.every((v, i) => v === before[i]) ? c : kind.withNumbers(c, now);
    }),
  };
}

/** Lines of no length and circles of no radius that a solution would leave. */
const collapsed = (sketch: Sketch, scale: number): boolean =>
  sketch.curves.some((c) =>
    curveKind(c)
      .sizes(c)
      .some((size) => !(size > COLLAPSED * scale)),
  );

const sweepOf = (c: Curve): number | undefined => {
  if (c.kind === "arc") return arcSweep(c)[1];
  return c.kind === "ellipse-arc" ? ellipseSweep(c)[1] : undefined;
};

/** Arcs turned inside out: one that was short is nearly whole, or the other way round. */
export const turnedOut = (before: readonly Curve[], after: readonly Curve[]): boolean =>
  after.some((c, i) => {
    const b = before[i]!;
    const [was, is] = b === c ? [] : [sweepOf(b), sweepOf(c)];
    return was !== undefined && is !== undefined && Math.abs(is - was) > Math.PI;
  });

export interface Solution {
  readonly system: System;
  readonly sketch: Sketch;
}

/** Solves the given relations from where the sketch stands; undefined when they cannot all be met from there. */
export function solveRelations(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
  iterations = 60,
): Solution | undefined {
  const system = buildSystem(sketch, relations, sizes);
  if (system.broken.length) return undefined;
  const start = Float64Array.from(system.x);
  const solution = (settled: Uint8Array): Solution | undefined => {
    if (!meets(system, settled, iterations)) return undefined;
    const solved = withCoordinates(sketch, system);
    const isGood = !collapsed(solved, system.scale) && !turnedOut(sketch.curves, solved.curves);
    return isGood ? { system, sketch: solved } : undefined;
  };
  const first = solution(presolve(system));
  if (first) return first;
  // what was settled by itself may have taken the wrong way: all at once, from where it was drawn
  system.x.set(start);
  return solution(system.constant);
}

/** Solves every cluster of what is not settled. */
function meets(system: System, settled: Uint8Array, iterations: number): boolean {
  return clustersOf(system, settled).every((c) => newton(prepare(c, settled), system.x, system.scale, { iterations }));
}

/** All clusters of a system, settled or not, as rank and swinging want them. */
export const preparedClusters = (system: System): Prepared[] =>
  clustersOf(system).map((c) => prepare(c, system.constant));
