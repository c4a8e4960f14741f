import type { Vec2 } from "@/core/geometry/vector";
import { mappedCurve } from "../curves/registry";
import { curveOf, pointsOf, type Constraint, type Curve, type Sketch } from "../sketch";
import { LETTER } from "./rewire";

/** A copy of some curves: new ids, moved by a map, and how references go from the old to the new. */
export interface Copy {
  readonly curves: Curve[];
  /** Joints between the copies, as between the originals. */
  readonly joints: Constraint[];
  readonly map: (ref: string) => string;
}

/** Names of the points of a mirrored arc change places. */
const swapped = (ref: string) =>
  ref.endsWith(".start") ? ref.replace(/start$/, "end") : ref.endsWith(".end") ? ref.replace(/end$/, "start") : ref;

/** Copies curves with their joints. @param move where each point goes */
export function copyOf(
  sketch: Sketch,
  ids: readonly string[],
  move: (p: Vec2) => Vec2,
  id: (letter: string) => string,
  scale = 1,
  mirrors = false,
): Copy {
  const source = sketch.curves.filter((c) => ids.includes(c.id));
  const names = new Map(source.map((c) => [c.id, id(LETTER[c.kind])]));
  const arcs = new Set(source.filter((c) => c.kind === "arc").map((c) => c.id));
  const map = (ref: string) => {
    const own = curveOf(ref),
      to = names.get(own);
    return to === undefined ? ref : `${to}${(mirrors && arcs.has(own) ? swapped(ref) : ref).slice(own.length)}`;
  };
  const curves = source.map((c): Curve => ({ ...mappedCurve(c, move, scale, mirrors), id: names.get(c.id)! }));
  const joints = sketch.constraints
    .filter((k) => (k.kind === "coincident" || k.kind === "concentric") && k.of.every((ref) => names.has(curveOf(ref))))
    .map((k): Constraint => ({ ...k, id: id("k"), of: k.of.map(map) }));
  return { curves, joints, map };
}

/** One reference for each place: points joined by coincidence count once. Radii are told by the curve. */
export function placesOf(sketch: Sketch, ids: readonly string[]): { points: string[]; round: string[] } {
  const root = new Map<string, string>();
  const find = (r: string): string => {
    const up = root.get(r);
    return up === undefined || up === r ? r : find(up);
  };
  for (const k of sketch.constraints)
    if (k.kind === "coincident" && k.of.every((r) => ids.includes(curveOf(r))))
      root.set(find(k.of[1]!), find(k.of[0]!));
  const points: string[] = [],
    round: string[] = [];
  const seen = new Set<string>();
  for (const c of sketch.curves) {
    if (!ids.includes(c.id)) continue;
    if (c.kind === "circle" || c.kind === "arc") round.push(c.id);
    // an arc is settled by its ends and its radius
    for (const ref of pointsOf(c)) {
      if (c.kind === "arc" && ref.endsWith(".centre")) continue;
      const top = find(ref);
      if (seen.has(top)) continue;
      seen.add(top);
      points.push(ref);
    }
  }
  return { points, round };
}
