import { SAME_WAY, TINY } from "@/core/geometry/tolerance";
import { cross2, distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import type { Size } from "./shape";

export const own = (p: Vec2): [number, number] => [p[0], p[1]];
export const heading = (a: Vec2, b: Vec2): number => Math.atan2(b[1] - a[1], b[0] - a[0]);
export const polar = (a: Vec2, r: number, t: number): Vec2 => [a[0] + r * Math.cos(t), a[1] + r * Math.sin(t)];
/** Signed distance of p from the line through a and b. */
export const beside = (a: Vec2, b: Vec2, p: Vec2): number => cross2(sub2(b, a), sub2(p, a)) / (distance2(a, b) || TINY);
export const asVec = (t: number): Vec2 => [Math.cos(t), Math.sin(t)];
/** The place p moved to distance d from the line through a and b, on its side. */
export function asideBy(a: Vec2, b: Vec2, p: Vec2, d: number): Vec2 {
  const now = beside(a, b, p),
    t = heading(a, b),
    n: Vec2 = [-Math.sin(t), Math.cos(t)],
    move = (now < 0 ? -d : d) - now;
  return [p[0] + n[0] * move, p[1] + n[1] * move];
}
/** Distance between two of the places. */
export const gap = (label: string, i: number, j: number): Size => ({
  label,
  quantity: "length",
  measure: (p) => (p[i] && p[j] ? distance2(p[i], p[j]) : 0),
});
/** Centre of the circle through three places. */
export function centreOf(a: Vec2, b: Vec2, c: Vec2): Vec2 | undefined {
  const u = sub2(b, a),
    v = sub2(c, a),
    k = 2 * cross2(u, v);
  if (Math.abs(k) < SAME_WAY * Math.hypot(...u) * Math.hypot(...v)) return undefined;
  const uu = u[0] * u[0] + u[1] * u[1],
    vv = v[0] * v[0] + v[1] * v[1];
  return [a[0] + (v[1] * uu - u[1] * vv) / k, a[1] + (u[0] * vv - v[0] * uu) / k];
}
/** The last place at a typed distance and angle from another. */
export const atSize = (from: Vec2, p: Vec2, length: number | undefined, angle: number | undefined): Vec2 =>
  polar(from, length ?? distance2(from, p), angle ?? heading(from, p));
