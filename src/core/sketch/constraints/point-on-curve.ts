import { derivativeWeights } from "@/core/geometry/spline";
import { derived, pair, weighted, type Dual2 } from "./dual";
import { offEllipse, pointCircle, pointLine } from "./equations";
import type { Equation, Pair, RelationKind, Slots } from "./kind";

/** A point on a line that runs along an axis is a plain identity of coordinates. */
function alongAxis(s: Slots, p: string, l: string): [number, number][] {
  const [px, py] = s.point(p),
    [sx, sy, ex, ey] = s.line(l);
  if (s.same(sy, ey)) return [[py, sy]];
  if (s.same(sx, ex)) return [[px, sx]];
  return [];
}

/** Hermite weights of the span's two points and two slopes at share u of a span of width h. */
const hermite = (u: number, h: number): [number, number, number, number] => [
  (1 + 2 * u) * (1 - u) ** 2,
  u * u * (3 - 2 * u),
  h * u * (1 - u) ** 2,
  -h * u * u * (1 - u),
];
const hermiteSlope = (u: number, h: number): [number, number, number, number] => [
  (6 * u * u - 6 * u) / h,
  (6 * u - 6 * u * u) / h,
  3 * u * u - 4 * u + 1,
  3 * u * u - 2 * u,
];

function onSpline(s: Slots, p: string, ref: string, extra: number): Equation[] {
  const { knots, start, end } = s.spline(ref),
    n = knots.length,
    weights = derivativeWeights(knots, start, end);
  const slots = [...s.all(ref), ...s.point(p), extra],
    m = s.all(ref).length / 2;
  const span = (t: number) =>
    Math.max(0, Math.min(n - 2, knots.findIndex((k, i) => i > 0 && t < k) - 1 + (t >= knots[n - 1]! ? n : 0)));
  const shares = (t: number, of: typeof hermite) => {
    const i = span(t),
      h = knots[i + 1]! - knots[i]!,
      [a, b, c, d] = of((t - knots[i]!) / h, h);
    return weights[0]!.map(
      (_, j) => (j === i ? a : 0) + (j === i + 1 ? b : 0) + c * weights[i]![j]! + d * weights[i + 1]![j]!,
    );
  };
  return ([0, 1] as const).map((k) =>
    derived(slots, (duals) => {
      const controls: Dual2[] = [
        ...knots.map((_, i) => pair(duals, i)),
        start ? pair(duals, n) : pair(duals, 0),
        end ? pair(duals, n + (start ? 1 : 0)) : pair(duals, 0),
      ];
      const t = duals[duals.length - 1]!,
        at = weighted(controls, shares(t.v, hermite)),
        slope = weighted(controls, shares(t.v, hermiteSlope));
      // the value carries the controls' derivatives; the parameter's own comes through the slope
      return at[k].add(t.plus(-t.v).times(slope[k].v)).sub(pair(duals, m)[k]);
    }),
  );
}

export const pointOnCurve: RelationKind<Pair> = {
  takes: [
    ["point", "line"],
    ["point", "circle"],
    ["point", "ellipse"],
    ["point", "spline"],
  ],
  sentence: ([p, c]) => `${p} lies on ${c}`,
  mergesLate: true,
  merge: (s, [p, c]) => (s.type(c) === "line" ? alongAxis(s, p, c) : []),
  extra: (s, [p, c], values) => {
    if (s.type(c) !== "spline") return [];
    const { knots } = s.spline(c),
      [px, py] = s.point(p),
      slots = s.all(c);
    // begins at the nearest place of the polygon through its points
    let best = 0,
      near = Infinity;
    for (let i = 0; i + 1 < knots.length; i++)
      for (let k = 0; k <= 8; k++) {
        const u = k / 8,
          q = [0, 1].map((a) => values[slots[2 * i + a]!]! * (1 - u) + values[slots[2 * i + 2 + a]!]! * u);
        const d = Math.hypot(q[0]! - values[px]!, q[1]! - values[py]!);
        if (d < near) [best, near] = [knots[i]! + u * (knots[i + 1]! - knots[i]!), d];
      }
    return [best];
  },
  equations: (s, [p, c], _size, _x, { extra = 0 }) => {
    switch (s.type(c)) {
      case "circle":
      case "arc":
        return [pointCircle(s.point(p), s.centre(c), s.radius(c))];
      case "ellipse":
        return [
          derived([...s.point(p), ...s.all(c).slice(0, 6)], (v) =>
            offEllipse(pair(v, 1), pair(v, 2), pair(v, 3), pair(v, 0)),
          ),
        ];
      case "spline":
        return onSpline(s, p, c, extra);
      default:
        return alongAxis(s, p, c).length ? [] : [pointLine(s.point(p), s.line(c), 0)];
    }
  },
};
