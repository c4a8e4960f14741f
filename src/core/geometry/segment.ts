import { ROUNDING, TINY } from "./tolerance";
import { cross2, distance2, dot2, scale2, sub2, type Vec2 } from "./vector";
import { splitBezier, bezierAt, bezierDerivative, type Bezier } from "./bezier";

/**
 * A directed stretch of a plane curve, in mm. A parameter t runs from 0 at its start to 1 at its end.
 * Arcs run from angle `from` by `sweep` radians (negative: clockwise); those of an ellipse count the angle in its
 * own axes, so that the point is centre + cos·major + sin·minor. A spline is a chain of cubic Bézier curves.
 */
export type Segment =
  | { readonly kind: "line"; readonly a: Vec2; readonly b: Vec2 }
  | {
      readonly kind: "arc";
      readonly centre: Vec2;
      readonly radius: number;
      readonly from: number;
      readonly sweep: number;
    }
  | {
      readonly kind: "ellipse";
      readonly centre: Vec2;
      readonly major: Vec2;
      readonly minor: Vec2;
      readonly from: number;
      readonly sweep: number;
    }
  | { readonly kind: "spline"; readonly beziers: readonly Bezier[] };

export const TURN = 2 * Math.PI;
/** Folds an angle into [0, 2π). */
export const around = (t: number): number => {
  const r = ((t % TURN) + TURN) % TURN;
  return r === TURN ? 0 : r;
};

export const onCircle = (centre: Vec2, radius: number, angle: number): Vec2 => [
  centre[0] + radius * Math.cos(angle),
  centre[1] + radius * Math.sin(angle),
];
export const onEllipse = (centre: Vec2, major: Vec2, minor: Vec2, angle: number): Vec2 => {
  const c = Math.cos(angle),
    s = Math.sin(angle);
  return [centre[0] + c * major[0] + s * minor[0], centre[1] + c * major[1] + s * minor[1]];
};
/** The angle at which an ellipse stands nearest to pointing at p: exact for points on it. */
export const ellipseAngle = (centre: Vec2, major: Vec2, minor: Vec2, p: Vec2): number => {
  const d = sub2(p, centre),
    k = cross2(major, minor) || TINY;
  return Math.atan2(cross2(major, d) / k, cross2(d, minor) / k);
};

/** Which Bézier curve of a spline holds parameter t, and where in it. */
const inSpline = (n: number, t: number): [number, number] => {
  const i = Math.min(n - 1, Math.max(0, Math.floor(t * n)));
  return [i, t * n - i];
};

export function segmentAt(segment: Segment, t: number): Vec2 {
  switch (segment.kind) {
    case "line":
      return [segment.a[0] + (segment.b[0] - segment.a[0]) * t, segment.a[1] + (segment.b[1] - segment.a[1]) * t];
    case "arc":
      return onCircle(segment.centre, segment.radius, segment.from + segment.sweep * t);
    case "ellipse":
      return onEllipse(segment.centre, segment.major, segment.minor, segment.from + segment.sweep * t);
    case "spline": {
      const [i, u] = inSpline(segment.beziers.length, t);
      return bezierAt(segment.beziers[i]!, u);
    }
  }
}

export const segmentStart = (s: Segment): Vec2 =>
  s.kind === "line" ? s.a : s.kind === "spline" ? s.beziers[0]![0] : segmentAt(s, 0);
export const segmentEnd = (s: Segment): Vec2 =>
  s.kind === "line" ? s.b : s.kind === "spline" ? s.beziers[s.beziers.length - 1]![3] : segmentAt(s, 1);

/** First and second derivative by t, mm. */
export function segmentMotion(segment: Segment, t: number): [Vec2, Vec2] {
  switch (segment.kind) {
    case "line":
      return [sub2(segment.b, segment.a), [0, 0]];
    case "arc":
    case "ellipse": {
      const [u, v]: [Vec2, Vec2] =
        segment.kind === "arc"
          ? [
              [segment.radius, 0],
              [0, segment.radius],
            ]
          : [segment.major, segment.minor];
      const a = segment.from + segment.sweep * t,
        k = segment.sweep,
        c = Math.cos(a),
        n = Math.sin(a);
      return [
        [k * (-n * u[0] + c * v[0]), k * (-n * u[1] + c * v[1])],
        [-k * k * (c * u[0] + n * v[0]), -k * k * (c * u[1] + n * v[1])],
      ];
    }
    case "spline": {
      const m = segment.beziers.length,
        [i, u] = inSpline(m, t),
        [d, e] = bezierDerivative(segment.beziers[i]!, u);
      return [scale2(d, m), scale2(e, m * m)];
    }
  }
}

export function reversed<S extends Segment>(s: S): S {
  const segment: Segment =
    s.kind === "line"
      ? { ...s, a: s.b, b: s.a }
      : s.kind === "spline"
        ? { ...s, beziers: s.beziers.map(([a, b, c, d]): Bezier => [d, c, b, a]).reverse() }
        : { ...s, from: s.from + s.sweep, sweep: -s.sweep };
  return segment as S;
}

/** The stretch between two parameters, t0 < t1. */
export function stretch<S extends Segment>(s: S, t0: number, t1: number): S {
  const cut = (): Segment => {
    switch (s.kind) {
      case "line":
        return { ...s, a: segmentAt(s, t0), b: segmentAt(s, t1) };
      case "arc":
      case "ellipse":
        return { ...s, from: s.from + s.sweep * t0, sweep: s.sweep * (t1 - t0) };
      case "spline": {
        const m = s.beziers.length,
          [i, u] = inSpline(m, t0);
        let [j, v] = inSpline(m, t1);
        if (v === 0 && j > i) [j, v] = [j - 1, 1];
        const list = s.beziers.slice(i, j + 1);
        if (v < 1) list[list.length - 1] = splitBezier(list[list.length - 1]!, v)[0];
        if (u > 0) list[0] = splitBezier(list[0]!, i === j && v > 0 ? u / v : u)[1];
        return { ...s, beziers: list };
      }
    }
  };
  return cut() as S;
}

/** A whole circle or ellipse: it begins where it ends. */
export const isWhole = (s: Segment): boolean =>
  (s.kind === "arc" || s.kind === "ellipse") && Math.abs(Math.abs(s.sweep) - TURN) < ROUNDING;

/** Points along a segment, the end left out; round ones in steps of at most `step` radians. */
export function sampled(segment: Segment, step = TURN / 256): Vec2[] {
  if (segment.kind === "line") return [segment.a];
  const n =
    segment.kind === "spline"
      ? segment.beziers.length * Math.max(8, Math.ceil(1 / step))
      : Math.max(2, Math.ceil(Math.abs(segment.sweep) / step));
  return Array.from({ length: n }, (_, i) => segmentAt(segment, i / n));
}

/** Lowest and highest corner of the box around a segment: exact but for splines, whose poles are boxed. */
export function segmentBox(segment: Segment): [Vec2, Vec2] {
  const points: Vec2[] = [segmentStart(segment), segmentEnd(segment)];
  if (segment.kind === "spline") points.push(...segment.beziers.flat());
  else if (segment.kind !== "line") {
    const [u, v]: [Vec2, Vec2] =
      segment.kind === "arc"
        ? [
            [segment.radius, 0],
            [0, segment.radius],
          ]
        : [segment.major, segment.minor];
    const low = Math.min(segment.from, segment.from + segment.sweep),
      span = Math.abs(segment.sweep);
    for (const k of [0, 1])
      for (const turn of [0, Math.PI]) {
        const a = Math.atan2(v[k]!, u[k]!) + turn;
        if (around(a - low) <= span) points.push(onEllipse(segment.centre, u, v, a));
      }
  }
  const xs = points.map((p) => p[0]),
    ys = points.map((p) => p[1]);
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}

/** Signed area between a segment and the origin, by Green's theorem, exact: half the integral of x dy - y dx. */
export function sweptArea(segment: Segment): number {
  switch (segment.kind) {
    case "line":
      return cross2(segment.a, segment.b) / 2;
    case "arc":
      return (
        cross2(segmentStart(segment), segmentEnd(segment)) / 2 +
        (segment.radius * segment.radius * (segment.sweep - Math.sin(segment.sweep))) / 2
      );
    case "ellipse":
      return (
        cross2(segmentStart(segment), segmentEnd(segment)) / 2 +
        (cross2(segment.major, segment.minor) * (segment.sweep - Math.sin(segment.sweep))) / 2
      );
    // exact for cubics; see Bernstein products
    case "spline":
      return segment.beziers.reduce(
        (sum, [a, b, c, d]) =>
          sum +
          (6 * cross2(a, b) +
            3 * cross2(a, c) +
            cross2(a, d) +
            3 * cross2(b, c) +
            3 * cross2(b, d) +
            6 * cross2(c, d)) /
            20,
        0,
      );
  }
}

/** Length along a segment: closed form for lines and arcs, otherwise Gauss–Legendre over short stretches. */
export function segmentLength(segment: Segment): number {
  if (segment.kind === "line") return distance2(segment.a, segment.b);
  if (segment.kind === "arc") return segment.radius * Math.abs(segment.sweep);
  const n = segment.kind === "spline" ? 8 * segment.beziers.length : 32,
    g = Math.sqrt(0.6) / 2;
  let sum = 0;
  for (let i = 0; i < n; i++)
    for (const [at, w] of [
      [0.5 - g, 5],
      [0.5, 8],
      [0.5 + g, 5],
    ] as const)
      sum += (w / 18 / n) * Math.hypot(...segmentMotion(segment, (i + at) / n)[0]);
  return sum;
}

/** Parameter of the point of a segment nearest to p, and how far that is. */
export function nearestOn(
  segment: Segment,
  p: Vec2,
): { readonly t: number; readonly at: Vec2; readonly distance: number } {
  const answer = (t: number) => {
    const at = segmentAt(segment, t);
    return { t, at, distance: distance2(at, p) };
  };
  const best = (list: { t: number; at: Vec2; distance: number }[]) =>
    list.reduce((a, b) => (b.distance < a.distance ? b : a));
  if (segment.kind === "line") {
    const u = sub2(segment.b, segment.a);
    return answer(Math.max(0, Math.min(1, dot2(sub2(p, segment.a), u) / (dot2(u, u) || 1))));
  }
  if (segment.kind === "arc") {
    const a = Math.atan2(p[1] - segment.centre[1], p[0] - segment.centre[0]);
    const along = segment.sweep < 0 ? around(segment.from - a) : around(a - segment.from);
    const inner = along <= Math.abs(segment.sweep) ? [answer(along / (Math.abs(segment.sweep) || 1))] : [];
    return best([...inner, answer(0), answer(1)]);
  }
  const n = segment.kind === "spline" ? 12 * segment.beziers.length : 48;
  const rough = best(Array.from({ length: n + 1 }, (_, i) => answer(i / n)));
  let t = rough.t;
  for (let k = 0; k < 12; k++) {
    const q = segmentAt(segment, t),
      [d, e] = segmentMotion(segment, t),
      w = sub2(q, p);
    const slope = dot2(d, w),
      bend = dot2(d, d) + Math.max(0, dot2(e, w));
    const next = Math.max(rough.t - 1 / n, Math.min(rough.t + 1 / n, t - slope / (bend || 1)));
    t = Math.max(0, Math.min(1, next));
  }
  return best([rough, answer(t)]);
}

/** The tangent direction at t as an angle, and the signed curvature (positive: bends to the left). */
export function headingAt(s: Segment, t: number): [number, number] {
  const [d, e] = segmentMotion(s, t);
  const l = Math.hypot(...d) || TINY;
  return [Math.atan2(d[1], d[0]), cross2(d, e) / (l * l * l)];
}

/** The point at a share of the way, for marks and names. */
export const segmentMiddle = (s: Segment): Vec2 => segmentAt(s, 0.5);
