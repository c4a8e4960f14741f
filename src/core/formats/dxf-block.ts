import type { Vec2 } from "@/core/geometry/vector";
import { mappedCurve, segmentOf } from "@/core/sketch/curves/registry";
import type { Curve } from "@/core/sketch/sketch";
import { numberOf, type Entity } from "./dxf-file";
import { ROUND } from "./tolerance";

/** A plane affine map: where the origin goes, and the unit vectors. mm. */
interface Affine {
  readonly origin: Vec2;
  readonly x: Vec2;
  readonly y: Vec2;
}

/** Where an INSERT puts its block, once for each place of its grid. @param base the block's base point, mm */
export function placesOf(
  insert: Entity,
  base: Vec2,
  factor: number,
): { readonly count: number; at: (i: number) => Affine } {
  const turn = (numberOf(insert, 50, 0) * Math.PI) / 180,
    [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [wide, high] = [numberOf(insert, 41, 1), numberOf(insert, 42, 1)];
  const x: Vec2 = [wide * cos, wide * sin],
    y: Vec2 = [-high * sin, high * cos];
  // seen from below its own x runs the other way (the arbitrary axis algorithm)
  const side = numberOf(insert, 230, 1) < 0 ? -1 : 1;
  const columns = Math.max(1, Math.trunc(numberOf(insert, 70, 1))),
    rows = Math.max(1, Math.trunc(numberOf(insert, 71, 1)));
  const [stepX, stepY] = [numberOf(insert, 44, 0) * factor, numberOf(insert, 45, 0) * factor];
  const from: Vec2 = [numberOf(insert, 10, 0) * factor, numberOf(insert, 20, 0) * factor];
  return {
    count: columns * rows,
    at(i) {
      const [along, up] = [(i % columns) * stepX, Math.floor(i / columns) * stepY];
      const origin: Vec2 = [
        from[0] + along * cos - up * sin - base[0] * x[0] - base[1] * y[0],
        from[1] + along * sin + up * cos - base[0] * x[1] - base[1] * y[1],
      ];
      return { origin: [side * origin[0], origin[1]], x: [side * x[0], x[1]], y: [side * y[0], y[1]] };
    },
  };
}

/** A curve where an affine map puts it: circles that are stretched are ellipses. */
export function placedCurve(curve: Curve, { origin, x, y }: Affine): Curve {
  const turned = ([u, v]: Vec2): [number, number] => [u * x[0] + v * y[0], u * x[1] + v * y[1]];
  const put = (p: Vec2): [number, number] => {
    const [u, v] = turned(p);
    return [origin[0] + u, origin[1] + v];
  };
  const [wide, high] = [Math.hypot(...x), Math.hypot(...y)],
    skew = x[0] * y[0] + x[1] * y[1];
  const isAlike = Math.abs(wide - high) <= ROUND * wide && Math.abs(skew) <= ROUND * wide * high;
  const mirrors = x[0] * y[1] - x[1] * y[0] < 0;
  if (isAlike) return mappedCurve(curve, put, wide, mirrors);
  const arms = armsOf(curve);
  // lines, points and splines through points go where their points go
  if (!arms) return mappedCurve(curve, put, 1, mirrors);
  const { id, construction } = curve,
    own = axes(put(arms.centre), turned(arms.major), turned(arms.minor)),
    more = construction ? { construction } : {};
  if (!("start" in curve)) return { id, kind: "ellipse", ...own, ...more };
  return { id, kind: "ellipse-arc", ...own, start: put(curve.start), end: put(curve.end), ...more };
}

/** Two half diameters of a round curve that are square to each other; nothing of others. */
function armsOf(curve: Curve): { readonly centre: Vec2; readonly major: Vec2; readonly minor: Vec2 } | undefined {
  const segment = segmentOf(curve);
  if (segment?.kind === "arc")
    return { centre: segment.centre, major: [segment.radius, 0], minor: [0, segment.radius] };
  return segment?.kind === "ellipse" ? segment : undefined;
}

/** The half axes of the ellipse that has two conjugate half diameters (Rytz, by angle). */
function axes(centre: [number, number], u: Vec2, v: Vec2) {
  const t = Math.atan2(2 * (u[0] * v[0] + u[1] * v[1]), u[0] ** 2 + u[1] ** 2 - v[0] ** 2 - v[1] ** 2) / 2,
    [cos, sin] = [Math.cos(t), Math.sin(t)];
  const end = (a: number, b: number): [number, number] => [
    centre[0] + a * u[0] + b * v[0],
    centre[1] + a * u[1] + b * v[1],
  ];
  return { centre, major: end(cos, sin), minor: end(-sin, cos) };
}
