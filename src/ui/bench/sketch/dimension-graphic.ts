import { ROUNDING } from "@/core/geometry/tolerance";
import { sizeText } from "@/core/sketch/sentences";
import { cross2, distance2, dot2, sub2, type Vec2 } from "@/core/geometry/vector";
import { onCircle, segmentAt } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { extentOf } from "@/core/sketch/profile";
import { curveById, lineThrough, pointAt, type Dimension, type Sketch } from "@/core/sketch/sketch";
import type { LengthUnit } from "@/core/units/quantity";

/** Lines of a dimension in sketch coordinates, and where its number stands. */
interface DimensionGraphic {
  readonly lines: readonly (readonly Vec2[])[];
  /** Tip and a point it comes from. */
  readonly arrows: readonly (readonly [Vec2, Vec2])[];
  readonly label: Vec2;
}

type Placed = Pick<Dimension, "kind" | "of" | "flip" | "sides"> & { readonly at?: Vec2 | undefined };

/** @param pixel mm per pixel, for a number not yet placed */
export function dimensionGraphic(s: Sketch, placed: Placed, pixel: number): DimensionGraphic | undefined {
  const [p, q] = placed.of as [string, string];
  switch (placed.kind) {
    case "length":
      return straight(s, ...lineThrough(s, p), placed.at, pixel);
    case "distance":
      return straight(s, pointAt(s, p), pointAt(s, q), placed.at, pixel);
    case "horizontal-distance":
      return straight(s, pointAt(s, p), pointAt(s, q), placed.at, pixel, [1, 0]);
    case "vertical-distance":
      return straight(s, pointAt(s, p), pointAt(s, q), placed.at, pixel, [0, 1]);
    case "point-line": {
      const at = pointAt(s, p),
        [a, b] = lineThrough(s, q);
      const u = sub2(b, a),
        t = dot2(sub2(at, a), u) / dot2(u, u);
      return straight(s, [a[0] + u[0] * t, a[1] + u[1] * t], at, placed.at, pixel);
    }
    case "across": {
      // from the place to its image beyond the centre line
      const at = sidePlace(s, p, placed.sides?.[0], lineThrough(s, q)),
        [a, b] = lineThrough(s, q),
        u = sub2(b, a),
        t = dot2(sub2(at, a), u) / dot2(u, u);
      const foot: Vec2 = [a[0] + u[0] * t, a[1] + u[1] * t];
      return straight(s, at, [2 * foot[0] - at[0], 2 * foot[1] - at[1]], placed.at, pixel);
    }
    case "to-side": {
      const [from, to] = sidePlaces(s, p, q, placed.sides ?? []);
      return straight(s, from, to, placed.at, pixel);
    }
    case "ring": {
      const [a, b] = [roundOf(s, p), roundOf(s, q)];
      if (!a || !b) return undefined;
      const t = placed.at ? Math.atan2(placed.at[1] - a.centre[1], placed.at[0] - a.centre[0]) : 0.6;
      return straight(s, onCircle(a.centre, a.radius, t), onCircle(a.centre, b.radius, t), placed.at, pixel);
    }
    case "arc-length": {
      const c = curveById(s, p),
        seg = c && segmentOf(c);
      if (seg?.kind !== "arc") return undefined;
      const r = placed.at ? distance2(seg.centre, placed.at) : seg.radius + 24 * pixel,
        on = (x: number) => onCircle(seg.centre, r, seg.from + seg.sweep * x);
      return {
        lines: [
          Array.from({ length: 33 }, (_, i) => on(i / 32)),
          [segmentAt(seg, 0), on(0)],
          [segmentAt(seg, 1), on(1)],
        ],
        arrows: [
          [on(0), on(0.1)],
          [on(1), on(0.9)],
        ],
        label: placed.at ?? on(0.5),
      };
    }
    case "radius":
    case "diameter": {
      const c = roundOf(s, p);
      if (!c) return undefined;
      const label: Vec2 = placed.at ?? [
        c.centre[0] + (c.radius + 26 * pixel) * 0.8,
        c.centre[1] + (c.radius + 26 * pixel) * 0.6,
      ];
      const l = distance2(c.centre, label) || 1;
      const u: Vec2 = [(label[0] - c.centre[0]) / l, (label[1] - c.centre[1]) / l];
      const rim: Vec2 = [c.centre[0] + u[0] * c.radius, c.centre[1] + u[1] * c.radius];
      const far: Vec2 =
        placed.kind === "diameter" ? [c.centre[0] - u[0] * c.radius, c.centre[1] - u[1] * c.radius] : c.centre;
      const inside = l < c.radius;
      return {
        lines: [[far, inside ? rim : label]],
        arrows: [[rim, c.centre], ...(placed.kind === "diameter" ? [[far, c.centre] as const] : [])],
        label,
      };
    }
    case "full-angle":
    case "angle": {
      const [a, b] = lineThrough(s, p),
        [c, e] = lineThrough(s, q);
      const u = sub2(b, a),
        v0 = sub2(e, c),
        v: Vec2 = placed.flip ? [-v0[0], -v0[1]] : v0;
      const k = cross2(u, v);
      if (Math.abs(k) < ROUNDING) return undefined;
      const t = cross2(sub2(c, a), v) / k;
      const o: Vec2 = [a[0] + u[0] * t, a[1] + u[1] * t];
      const from = Math.atan2(u[1], u[0]);
      let sweep = Math.atan2(v[1], v[0]) - from;
      if (placed.kind === "full-angle") sweep *= 2;
      sweep -=
        (placed.kind === "full-angle" ? 4 : 2) *
        Math.PI *
        Math.round(sweep / ((placed.kind === "full-angle" ? 4 : 2) * Math.PI));
      const middle = from + sweep / 2;
      const r = placed.at ? distance2(o, placed.at) : 40 * pixel;
      // the number may stand in the opposite sector: turn the arc there
      const turn =
        placed.at && Math.cos(Math.atan2(placed.at[1] - o[1], placed.at[0] - o[0]) - middle) < 0 ? Math.PI : 0;
      const on = (x: number): Vec2 => [
        o[0] + r * Math.cos(from + turn + sweep * x),
        o[1] + r * Math.sin(from + turn + sweep * x),
      ];
      const arc = Array.from({ length: 25 }, (_, i) => on(i / 24));
      return {
        lines: [arc],
        arrows: [
          [on(0), on(0.12)],
          [on(1), on(0.88)],
        ],
        label: placed.at ?? on(0.5),
      };
    }
  }
}

/** Centre and radius of a circle or arc. */
function roundOf(s: Sketch, id: string): { centre: Vec2; radius: number } | undefined {
  const c = curveById(s, id),
    seg = c && segmentOf(c);
  return seg?.kind === "arc" ? seg : undefined;
}

/** The place a size across a line is taken from: a point, the start of a line, or the side of a round thing. */
function sidePlace(s: Sketch, ref: string, side: "near" | "far" | undefined, [a, b]: [Vec2, Vec2]): Vec2 {
  const round = roundOf(s, ref);
  if (!round)
    return s.curves.some((c) => c.id === ref && c.kind === "line") ? pointAt(s, `${ref}.start`) : pointAt(s, ref);
  const u = sub2(b, a),
    off = cross2(u, sub2(round.centre, a)) < 0 ? -1 : 1,
    l = Math.hypot(...u),
    k = (side === "far" ? off : -off) * round.radius;
  return [round.centre[0] - (u[1] / l) * k, round.centre[1] + (u[0] / l) * k];
}

/** From and to of a size taken to the side of a round thing. */
function sidePlaces(s: Sketch, p: string, q: string, sides: readonly ("near" | "far")[]): [Vec2, Vec2] {
  const [a, b] = [roundOf(s, p), roundOf(s, q)!];
  const isLine = p.endsWith("-axis") || s.curves.some((c) => c.id === p && c.kind === "line");
  if (isLine) {
    const [from, to] = lineThrough(s, p),
      u = sub2(to, from),
      at = sidePlace(s, q, sides[0], [from, to]),
      t = dot2(sub2(at, from), u) / dot2(u, u);
    return [[from[0] + u[0] * t, from[1] + u[1] * t], at];
  }
  const start = a ? a.centre : pointAt(s, p),
    l = distance2(start, b.centre) || 1,
    u: Vec2 = [(b.centre[0] - start[0]) / l, (b.centre[1] - start[1]) / l];
  const own = a ? (sides[0] === "far" ? -a.radius : a.radius) : 0,
    other = (sides[a ? 1 : 0] === "far" ? 1 : -1) * b.radius;
  return [
    [start[0] + u[0] * own, start[1] + u[1] * own],
    [b.centre[0] + u[0] * other, b.centre[1] + u[1] * other],
  ];
}

/** A straight dimension from a to b measured along `along` (default: from a to b). */
function straight(s: Sketch, a: Vec2, b: Vec2, at: Vec2 | undefined, pixel: number, along?: Vec2): DimensionGraphic {
  const l = distance2(a, b) || 1;
  const u: Vec2 = along ?? [(b[0] - a[0]) / l, (b[1] - a[1]) / l];
  const n: Vec2 = [-u[1], u[0]];
  const middle: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const label: Vec2 = at ?? outwards(s, middle, n, 30 * pixel);
  const foot = (p: Vec2): Vec2 => {
    const off = dot2(sub2(label, p), n);
    return [p[0] + n[0] * off, p[1] + n[1] * off];
  };
  const beyond = (p: Vec2, f: Vec2): Vec2 => {
    const d = distance2(p, f) || 1;
    return [f[0] + ((f[0] - p[0]) / d) * 4 * pixel, f[1] + ((f[1] - p[1]) / d) * 4 * pixel];
  };
  const fa = foot(a),
    fb = foot(b);
  return {
    lines: [
      [a, beyond(a, fa)],
      [b, beyond(b, fb)],
      [fa, fb],
      ...(outside(fa, fb, label) ? [[nearer(fa, fb, label), label]] : []),
    ],
    arrows: [
      [fa, fb],
      [fb, fa],
    ],
    label,
  };
}

/** A number not yet placed stands away from the middle of the sketch. */
function outwards(s: Sketch, middle: Vec2, n: Vec2, by: number): Vec2 {
  const box = extentOf(s),
    centre: Vec2 = box ? [(box[0][0] + box[1][0]) / 2, (box[0][1] + box[1][1]) / 2] : [0, 0];
  const side = dot2(sub2(middle, centre), n) < 0 ? -by : by;
  return [middle[0] + n[0] * side, middle[1] + n[1] * side];
}

const outside = (a: Vec2, b: Vec2, p: Vec2) => {
  const t = dot2(sub2(p, a), sub2(b, a)) / (dot2(sub2(b, a), sub2(b, a)) || 1);
  return t < 0 || t > 1;
};
const nearer = (a: Vec2, b: Vec2, p: Vec2) => (distance2(a, p) < distance2(b, p) ? a : b);

/** Its number as lettered: a diameter sign, a radius letter, an arc, brackets around a reference. */
export function dimensionText(d: Dimension, unit: LengthUnit, sketch?: Sketch): string {
  const across = d.kind === "across" && sketch && curveById(sketch, d.of[1]!)?.construction === "centre-line";
  const sign = d.kind === "diameter" || across ? "⌀" : d.kind === "radius" ? "R" : d.kind === "arc-length" ? "⌒" : "";
  const size = `${sign}${sizeText(d, unit, sketch).replace(/ (mm|in)$/, "")}`;
  return d.reference ? `(${size})` : size;
}
