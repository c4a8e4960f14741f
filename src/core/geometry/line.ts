import type { Frame } from "./frame";
import { add3, cross3, dot3, scale3, sub3, type Vec3 } from "./vector";

/** A line in space without ends: a point on it and its unit direction. mm. */
export interface Line {
  readonly at: Vec3;
  readonly along: Vec3;
}

/** A direction turned about a unit axis, radians, right-hand rule (Rodrigues). */
export function turnedVector(v: Vec3, axis: Vec3, angle: number): Vec3 {
  const c = Math.cos(angle),
    s = Math.sin(angle);
  return add3(add3(scale3(v, c), scale3(cross3(axis, v), s)), scale3(axis, dot3(axis, v) * (1 - c)));
}
/** A point turned about a line. */
export const turnedPoint = (p: Vec3, l: Line, angle: number): Vec3 =>
  add3(l.at, turnedVector(sub3(p, l.at), l.along, angle));
export const turnedFrame = (f: Frame, l: Line, angle: number): Frame => ({
  origin: turnedPoint(f.origin, l, angle),
  x: turnedVector(f.x, l.along, angle),
  y: turnedVector(f.y, l.along, angle),
});
/** The foot of a point on a line. */
export const footOn = (p: Vec3, l: Line): Vec3 => add3(l.at, scale3(l.along, dot3(sub3(p, l.at), l.along)));
