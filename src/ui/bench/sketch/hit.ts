import { distance2, dot2, sub2, type Vec2 } from "@/core/geometry/vector";
import { pointAt, pointsOf, type Curve, type Sketch } from "@/core/sketch/sketch";

/** What is under the pointer: a reference and the nearest point of it. */
export interface Hit {
  readonly ref: string;
  readonly kind: "point" | "line" | "circle";
  readonly at: Vec2;
}

const POINT_PIXELS = 9;
const CURVE_PIXELS = 7;

/** Nearest point of a curve, and how far. */
export function nearestOn(c: Curve, p: Vec2): Vec2 {
  if (c.kind === "circle") {
    const d = distance2(c.centre, p) || 1e-12;
    return [c.centre[0] + ((p[0] - c.centre[0]) / d) * c.radius, c.centre[1] + ((p[1] - c.centre[1]) / d) * c.radius];
  }
  const u = sub2(c.end, c.start);
  const t = Math.max(0, Math.min(1, dot2(sub2(p, c.start), u) / (dot2(u, u) || 1)));
  return [c.start[0] + u[0] * t, c.start[1] + u[1] * t];
}

/** @param pixel mm per pixel @param without references to overlook (what is being drawn) */
export function hitAt(sketch: Sketch, p: Vec2, pixel: number, without: readonly string[] = []): Hit | undefined {
  let best: Hit | undefined, near = POINT_PIXELS * pixel;
  const point = (ref: string, at: Vec2) => {
    const d = distance2(at, p);
    if (d < near && !without.includes(ref)) [best, near] = [{ ref, kind: "point", at }, d];
  };
  for (const c of sketch.curves) for (const ref of pointsOf(c)) point(ref, pointAt(sketch, ref));
  point("origin", [0, 0]);
  if (best) return best;
  near = CURVE_PIXELS * pixel;
  for (const c of sketch.curves) {
    const at = nearestOn(c, p), d = distance2(at, p);
    if (d < near && !without.includes(c.id)) [best, near] = [{ ref: c.id, kind: c.kind, at }, d];
  }
  if (best) return best;
  if (Math.abs(p[1]) < CURVE_PIXELS * pixel) return { ref: "x-axis", kind: "line", at: [p[0], 0] };
  if (Math.abs(p[0]) < CURVE_PIXELS * pixel) return { ref: "y-axis", kind: "line", at: [0, p[1]] };
  return undefined;
}
