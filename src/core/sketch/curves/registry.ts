import type { Segment } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import { arc } from "./arc";
import { circle } from "./circle";
import type { CurveKind } from "./curve";
import { ellipse, ellipseArc } from "./ellipse";
import { line } from "./line";
import { point } from "./point";
import type { Curve } from "./schema";
import { spline } from "./spline";

/** Every kind of curve, one line each. */
export const CURVES: { readonly [K in Curve["kind"]]: CurveKind<Extract<Curve, { kind: K }>> } = {
  point,
  line,
  circle,
  arc,
  ellipse,
  "ellipse-arc": ellipseArc,
  spline,
};

/** The kind of a curve, for any curve. */
export const curveKind = (c: Curve): CurveKind<Curve> => CURVES[c.kind];
/** A curve's shape; undefined for a point. */
export const segmentOf = (c: Curve): Segment | undefined => curveKind(c).segment(c);

/**
 * A curve with every point moved by a map that keeps shapes (moves, turns, mirrors, scales evenly).
 * @param scale how much longer lengths become @param mirrors whether left and right change places
 */
export function mappedCurve<C extends Curve>(c: C, map: (p: Vec2) => Vec2, scale = 1, mirrors = false): C {
  const kind = curveKind(c),
    v = kind.numbers(c),
    n = kind.radius === undefined ? v.length : kind.radius;
  const w = [...v];
  for (let i = 0; i + 1 < n; i += 2) [w[i], w[i + 1]] = map([v[i]!, v[i + 1]!]);
  if (kind.radius !== undefined) w[kind.radius] = v[kind.radius]! * scale;
  const moved = kind.withNumbers(c, w) as C;
  // an arc runs counter-clockwise whatever happens to it
  return moved.kind === "arc" && mirrors ? { ...moved, start: moved.end, end: moved.start } : moved;
}
