import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { normalOf, toPlane, type Frame } from "@/core/geometry/frame";
import { ellipseAngle } from "@/core/geometry/segment";
import { add3, cross3, dot3, scale3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Edge } from "@/core/kernel/edges";
import type { Curve } from "@/core/sketch/sketch";

const own = (p: Vec2): [number, number] => [p[0] + 0, p[1] + 0];

/**
 * An edge of the part seen along the normal of a plane, as a curve of the sketch: lines and circles as what they
 * look like (a point, a line, a circle, an ellipse), others as a spline through points of it.
 */
export function pictureOf(edge: Edge, frame: Frame, id: string): Curve | undefined {
  const base = { id, construction: true as const, projected: edge.key };
  const flat = edge.points.map((p) => toPlane(frame, p)),
    a = flat[0]!,
    b = flat[flat.length - 1]!;
  const apart = (p: Vec2, q: Vec2) => Math.hypot(p[0] - q[0], p[1] - q[1]) > COINCIDENT;
  if (edge.shape.kind === "line")
    return apart(a, b) ? { ...base, kind: "line", start: own(a), end: own(b) } : { ...base, kind: "point", at: own(a) };
  if (edge.shape.kind === "circle") return roundPicture(edge.shape, flat, frame, base);
  const every = Math.max(1, Math.ceil(flat.length / 17)),
    through = flat.filter((_, i) => i % every === 0 || i === flat.length - 1).map(own);
  return through.length > 1 && through.every((p, i) => !i || apart(p, through[i - 1]!))
    ? { ...base, kind: "spline", through }
    : undefined;
}

function roundPicture(
  shape: Extract<Edge["shape"], { kind: "circle" }>,
  flat: readonly Vec2[],
  frame: Frame,
  base: { id: string; construction: true; projected: string },
): Curve | undefined {
  const n = normalOf(frame),
    tilt = dot3(shape.axis, n),
    centre = toPlane(frame, shape.centre),
    r = shape.radius;
  const a = flat[0]!,
    b = flat[flat.length - 1]!,
    middle = flat[flat.length >> 1]!;
  // run as the sketch's arcs run
  const ccw = (middle[0] - a[0]) * (b[1] - middle[1]) - (middle[1] - a[1]) * (b[0] - middle[0]) > 0;
  const [start, end] = ccw ? [a, b] : [b, a];
  if (Math.abs(Math.abs(tilt) - 1) < SAME_WAY)
    return shape.whole
      ? { ...base, kind: "circle", centre: own(centre), radius: r }
      : { ...base, kind: "arc", centre: own(centre), start: own(start), end: own(end) };
  // across: the direction in both planes keeps its length; square to it the circle is foreshortened
  const across = unit3(cross3(shape.axis, n)),
    down = cross3(shape.axis, across);
  const place = (v: Vec3): Vec2 => toPlane(frame, add3(shape.centre, scale3(v, r)));
  const major = place(across),
    minor = place(down);
  if (Math.abs(tilt) < SAME_WAY) {
    // seen from its edge: a line as far as it reaches
    const along = flat.map(
      (p) => (p[0] - centre[0]) * (major[0] - centre[0]) + (p[1] - centre[1]) * (major[1] - centre[1]),
    );
    const low = flat[along.indexOf(Math.min(...along))]!,
      high = flat[along.indexOf(Math.max(...along))]!;
    return shape.whole
      ? { ...base, kind: "line", start: own([2 * centre[0] - major[0], 2 * centre[1] - major[1]]), end: own(major) }
      : { ...base, kind: "line", start: own(low), end: own(high) };
  }
  const axes = { centre: own(centre), major: own(major), minor: own(minor) };
  if (shape.whole) return { ...base, kind: "ellipse", ...axes };
  const u: Vec2 = [major[0] - centre[0], major[1] - centre[1]],
    v: Vec2 = [minor[0] - centre[0], minor[1] - centre[1]];
  const turn = (p: Vec2) => ellipseAngle(centre, u, v, p),
    sweep = (from: number, to: number) => (((to - from) % 6.283185307179586) + 6.283185307179586) % 6.283185307179586;
  const forward = sweep(turn(a), turn(middle)) < sweep(turn(a), turn(b));
  return { ...base, kind: "ellipse-arc", ...axes, start: own(forward ? a : b), end: own(forward ? b : a) };
}
