import { add3, length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { SightCurve } from "@/core/kernel/scene";

const between = (a: Vec3, b: Vec3, t: number): Vec3 => add3(scale3(a, 1 - t), scale3(b, t));

/** The place of a curve at a share of its way, 0 to 1. */
export function alongCurve(c: SightCurve, t: number): Vec3 {
  if (c.kind === "line") return between(c.a, c.b, t);
  if (c.kind === "circle") {
    const angle = c.from + (c.to - c.from) * t;
    return add3(c.centre, add3(scale3(c.x, Math.cos(angle)), scale3(c.y, Math.sin(angle))));
  }
  const at = t * (c.points.length - 1),
    i = Math.min(c.points.length - 2, Math.max(0, Math.floor(at)));
  return between(c.points[i]!, c.points[i + 1]!, at - i);
}

/** How long a curve is, mm. */
export function curveLength(c: SightCurve): number {
  if (c.kind === "line") return length3(sub3(c.b, c.a));
  if (c.kind === "circle") return length3(c.x) * Math.abs(c.to - c.from);
  return c.points.slice(1).reduce((l, p, i) => l + length3(sub3(p, c.points[i]!)), 0);
}
