import { courseOf, sharedPoint, sine } from "./direction";
import { add, cross, derived, dot, length, pair, scaled, sub, type Dual, type Dual2 } from "./dual";
import { ACROSS, ALONG, distance, pointLine, sideNow, turnTo, type Two } from "./equations";
import type { Equation, Pair, RelationKind, Slots } from "./kind";

const isRound = (s: Slots, ref: string) => s.type(ref) === "circle" || s.type(ref) === "arc";

/** Joined at a point: there both go the same way. This form stays regular where distances would not. */
function joined(s: Slots, a: string, b: string, at: string, x: Float64Array): Equation {
  const p = s.point(at);
  if (s.type(a) === "line" && isRound(s, b)) return turnTo(s.line(a), [...s.centre(b), ...p], s.scale, x, ACROSS);
  if (isRound(s, a) && isRound(s, b)) return turnTo([...s.centre(a), ...p], [...s.centre(b), ...p], s.scale, x, ALONG);
  const ca = courseOf(s, a, at),
    cb = courseOf(s, b, at),
    n = ca.slots.length;
  return derived([...ca.slots, ...cb.slots, ...p], (v) => {
    const q: Dual2 = [v[v.length - 2]!, v[v.length - 1]!];
    return sine(ca.direction(v.slice(0, n), q), cb.direction(v.slice(n), q)).times(s.scale);
  });
}

const lineCircle = (s: Slots, l: string, c: string, x: Float64Array): Equation => {
  const side = sideNow(s.centre(c), s.line(l), x) < 0 ? -1 : 1;
  return pointLine(s.centre(c), s.line(l), 0, [[s.radius(c), -side]]);
};

/** Outside each other or one inside the other, as they stand. */
function circleCircle(s: Slots, a: string, b: string, values: Float64Array): Equation {
  const [c, d, r, q] = [s.centre(a), s.centre(b), s.radius(a), s.radius(b)] as [Two, Two, number, number];
  const apart = Math.hypot(values[c[0]]! - values[d[0]]!, values[c[1]]! - values[d[1]]!),
    outer = values[r]! + values[q]!,
    inner = Math.abs(values[r]! - values[q]!);
  if (Math.abs(apart - outer) <= Math.abs(apart - inner))
    return distance(c, d, 0, [
      [r, -1],
      [q, -1],
    ]);
  const k = values[r]! >= values[q]! ? 1 : -1;
  return distance(c, d, 0, [
    [r, -k],
    [q, k],
  ]);
}

/** The half width of an ellipse across a line is the distance of its centre from it. */
const lineEllipse = (s: Slots, l: string, e: string, x: Float64Array): Equation => {
  const slots = s.all(e),
    side = sideNow([slots[0]!, slots[1]!], s.line(l), x) < 0 ? -1 : 1;
  return derived([...s.line(l), ...slots.slice(0, 6)], (duals) => {
    const u = sub(pair(duals, 1), pair(duals, 0)),
      k = length(u),
      c = pair(duals, 2);
    const a = cross(u, sub(pair(duals, 3), c)).div(k),
      b = cross(u, sub(pair(duals, 4), c)).div(k);
    return cross(u, sub(c, pair(duals, 0)))
      .div(k)
      .times(side)
      .sub(a.mul(a).add(b.mul(b)).sqrt());
  });
};

const ellipsePoint = (v: readonly Dual[], from: number, t: Dual): { at: Dual2; along: Dual2 } => {
  const c = pair(v, from),
    a = sub(pair(v, from + 1), c),
    b = sub(pair(v, from + 2), c),
    k = t.cos(),
    n = t.sin();
  return { at: add(c, add(scaled(a, k), scaled(b, n))), along: sub(scaled(b, k), scaled(a, n)) };
};

/** A circle or an ellipse touches an ellipse: where they touch is an unknown of its own. */
function ellipseRound(s: Slots, a: string, b: string, extra: number): Equation[] {
  if (isRound(s, a)) {
    const slots = [...s.centre(a), ...s.all(b).slice(0, 6), s.radius(a), extra];
    const parts = (v: readonly Dual[]) => ({ c: pair(v, 0), r: v[8]!, e: ellipsePoint(v, 1, v[9]!) });
    return [
      derived(slots, (v) => {
        const { c, r, e } = parts(v);
        return length(sub(e.at, c)).sub(r);
      }),
      derived(slots, (v) => {
        const { c, e } = parts(v);
        return dot(sub(e.at, c), e.along).div(length(e.along));
      }),
    ];
  }
  const slots = [...s.all(a).slice(0, 6), ...s.all(b).slice(0, 6), extra, extra + 1];
  const both = (v: readonly Dual[]) => [ellipsePoint(v, 0, v[12]!), ellipsePoint(v, 3, v[13]!)] as const;
  return [
    ...([0, 1] as const).map((k) =>
      derived(slots, (v) => {
        const [p, q] = both(v);
        return p.at[k].sub(q.at[k]);
      }),
    ),
    derived(slots, (v) => {
      const [p, q] = both(v);
      return sine(p.along, q.along).times(s.scale);
    }),
  ];
}

/** The angle in an ellipse's own axes at which it comes nearest to something at p. */
const towards = (s: Slots, e: string, two: Two, values: Float64Array): number => {
  const [cx, cy, ax, ay, bx, by] = s.all(e).map((i) => values[i]!) as [number, number, number, number, number, number];
  let best = 0,
    near = Infinity;
  for (let k = 0; k < 72; k++) {
    const t = (k * Math.PI) / 36,
      c = Math.cos(t),
      n = Math.sin(t);
    const d = Math.hypot(
      cx + c * (ax - cx) + n * (bx - cx) - values[two[0]]!,
      cy + c * (ay - cy) + n * (by - cy) - values[two[1]]!,
    );
    if (d < near) [best, near] = [t, d];
  }
  return best;
};

export const tangent: RelationKind<Pair> = {
  takes: [
    ["line", "circle"],
    ["circle", "circle"],
    ["line", "ellipse"],
    ["circle", "ellipse"],
    ["ellipse", "ellipse"],
    ["line", "spline"],
    ["circle", "spline"],
    ["ellipse", "spline"],
    ["spline", "spline"],
  ],
  sentence: ([a, b]) => `${a} and ${b} are tangent`,
  extra: (s, [a, b], x) => {
    if (s.type(b) !== "ellipse" || s.type(a) === "line" || sharedPoint(s, a, b)) return [];
    const centre = (ref: string): Two => (isRound(s, ref) ? s.centre(ref) : [s.all(ref)[0]!, s.all(ref)[1]!]);
    return isRound(s, a) ? [towards(s, b, centre(a), x)] : [towards(s, a, centre(b), x), towards(s, b, centre(a), x)];
  },
  equations: (s, [a, b], _size, x, { extra = 0 }) => {
    const at = sharedPoint(s, a, b);
    if (at) return [joined(s, a, b, at, x)];
    if (s.type(b) === "spline") return [];
    if (s.type(b) === "ellipse") return s.type(a) === "line" ? [lineEllipse(s, a, b, x)] : ellipseRound(s, a, b, extra);
    return [s.type(a) === "line" ? lineCircle(s, a, b, x) : circleCircle(s, a, b, x)];
  },
};
