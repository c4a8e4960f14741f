import { nearestOn } from "@/core/geometry/segment";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "@/core/sketch/curves/registry";
import { entityOf, pointAt, pointsOf, type EntityType, type Sketch } from "@/core/sketch/sketch";

/** What is under the pointer: a reference and the nearest point of it. */
export interface Hit {
  readonly ref: string;
  readonly kind: EntityType;
  readonly at: Vec2;
}

const POINT_PIXELS = 9;
const CURVE_PIXELS = 7;

/** @param pixel mm per pixel @param without references to overlook (what is being drawn) */
export function hitAt(sketch: Sketch, p: Vec2, pixel: number, without: readonly string[] = []): Hit | undefined {
  let best: Hit | undefined,
    near = POINT_PIXELS * pixel;
  const point = (ref: string, at: Vec2) => {
    const d = distance2(at, p);
    if (d < near && !without.includes(ref)) [best, near] = [{ ref, kind: "point", at }, d];
  };
  for (const c of sketch.curves) for (const ref of pointsOf(c)) point(ref, pointAt(sketch, ref));
  point("origin", [0, 0]);
  if (best) return best;
  near = CURVE_PIXELS * pixel;
  for (const c of sketch.curves) {
    const s = segmentOf(c);
    if (!s) continue;
    const { at, distance } = nearestOn(s, p);
    if (distance < near && !without.includes(c.id)) [best, near] = [{ ref: c.id, kind: entityOf(c), at }, distance];
  }
  if (best) return best;
  if (Math.abs(p[1]) < CURVE_PIXELS * pixel) return { ref: "x-axis", kind: "line", at: [p[0], 0] };
  if (Math.abs(p[0]) < CURVE_PIXELS * pixel) return { ref: "y-axis", kind: "line", at: [0, p[1]] };
  return undefined;
}
