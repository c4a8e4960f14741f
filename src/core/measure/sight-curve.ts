import { add3, length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { SightCurve } from "@/core/kernel/scene";

const between = (a: Vec3, b: Vec3, t: number): Vec3 => add3(scale3(a, 1 - t), scale3(b, t));

/** The place of a curve at a share of its way, 0 to 1. */
export function alongCurve(curve: SightCurve, t: number): Vec3 {
  if (curve.kind === "line") return between(curve.a, curve.b, t);
  if (curve.kind === "circle") {
    const angle = curve.from + (curve.to - curve.from) * t;
    return add3(curve.centre, add3(scale3(curve.x, Math.cos(angle)), scale3(curve.y, Math.sin(angle))));
  }
  const at = t * (curve.points.length - 1),
    i = Math.min(curve.points.length - 2, Math.max(0, Math.floor(at)));
  return between(curve.points[i]!, curve.points[i + 1]!, at - i);
}

/** How long a curve is, mm. */
export function curveLength(c: SightCurve): number {
  if (c.kind === "line") return length3(sub3(c.b, c.a));
  if (c.kind === "circle") return length3(c.x) * Math.abs(c.to - c.from);
  return c.points.slice(1).reduce((l, p, i) => l + length3(sub3(p, c.points[i]!)), 0);
}
