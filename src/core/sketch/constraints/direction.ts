import { derivativeWeights } from "@/core/geometry/spline";
import { cross, dot, length, pair, scaled, sub, weighted, type Dual, type Dual2 } from "./dual";
import { ownPlace } from "./equations";
import type { Slots } from "./kind";

/**
 * How a curve goes at a point of it: the slots it depends on and, over them, its direction and signed curvature
 * (1/mm).
 */
export interface Course {
  readonly slots: readonly number[];
  direction(v: readonly Dual[], p: Dual2): Dual2;
  curvature(v: readonly Dual[], p: Dual2): Dual;
}

const perp = (a: Dual2): Dual2 => [a[1].times(-1), a[0]];

/** @param at a reference to the point: for a spline, one of its ends */
export function courseOf(s: Slots, ref: string, at: string): Course {
  const slots = ref === "x-axis" || ref === "y-axis" ? s.line(ref) : s.all(ref);
  switch (s.type(ref)) {
    case "line":
      return { slots, direction: (v) => sub(pair(v, 1), pair(v, 0)), curvature: (v) => v[0]!.times(0) };
    case "circle":
    case "arc": {
      const n = s.type(ref) === "arc" ? 2 : 0;
      return {
        slots,
        direction: (v, p) => perp(sub(p, pair(v, n))),
        curvature: (v, p) =>
          p[0]
            .times(0)
            .plus(1)
            .div(v[2 * n + 2]!),
      };
    }
    case "ellipse": {
      const axes = (v: readonly Dual[]) => [sub(pair(v, 1), pair(v, 0)), sub(pair(v, 2), pair(v, 0))] as const;
      const direction = (v: readonly Dual[], p: Dual2): Dual2 => {
        const [a, b] = axes(v),
          [c, n] = ownPlace(a, b, sub(p, pair(v, 0)));
        return sub(scaled(b, c), scaled(a, n));
      };
      return {
        slots,
        direction,
        curvature: (v, p) => {
          const [a, b] = axes(v),
            l = length(direction(v, p));
          return cross(a, b).div(l.mul(l).mul(l));
        },
      };
    }
    default: {
      const { knots, start, end } = s.spline(ref),
        n = knots.length;
      const own = s.ends(ref)[1]!,
        to = s.point(own),
        q = s.point(at);
      const isEnd = s.same(to[0], q[0]) && s.same(to[1], q[1]);
      const weights = derivativeWeights(knots, start, end);
      // controls: the points, start handle, end handle; one that is missing weighs nothing
      const controls = (v: readonly Dual[]): Dual2[] => [
        ...knots.map((_, i) => pair(v, i)),
        start ? pair(v, n) : pair(v, 0),
        end ? pair(v, n + (start ? 1 : 0)) : pair(v, 0),
      ];
      const k = isEnd ? n - 1 : 0,
        [i, j] = isEnd ? [n - 2, n - 1] : [0, 1],
        h = knots[j]! - knots[i]!;
      const bend = weights[k]!.map((_, c) => {
        const step = (6 / (h * h)) * ((c === j ? 1 : 0) - (c === i ? 1 : 0));
        return isEnd
          ? -step + (2 * weights[i]![c]! + 4 * weights[j]![c]!) / h
          : step - (4 * weights[i]![c]! + 2 * weights[j]![c]!) / h;
      });
      return {
        slots,
        direction: (v) => weighted(controls(v), weights[k]!),
        curvature: (v) => {
          const c = controls(v),
            d = weighted(c, weights[k]!),
            l = length(d);
          return cross(d, weighted(c, bend)).div(l.mul(l).mul(l));
        },
      };
    }
  }
}

/** A point at which two curves are joined: an end of one that is an end of the other, or held on it. */
export function sharedPoint(s: Slots, a: string, b: string): string | undefined {
  const same = (p: string, q: string) => s.same(s.point(p)[0], s.point(q)[0]) && s.same(s.point(p)[1], s.point(q)[1]);
  for (const p of s.ends(a)) for (const q of s.ends(b)) if (same(p, q)) return p;
  for (const p of s.ends(a)) if (s.isOn(p, b)) return p;
  for (const q of s.ends(b)) if (s.isOn(q, a)) return q;
  return undefined;
}

/** Sine of the angle between two courses. */
export const sine = (a: Dual2, b: Dual2): Dual => cross(a, b).div(length(a).mul(length(b)));
/** +1 or -1: whether two courses go the same way. */
export const sense = (a: Dual2, b: Dual2): number => (dot(a, b).v < 0 ? -1 : 1);
