import { ROUNDING, TINY } from "@/core/geometry/tolerance";
import { cross, derived, dot, length, pair, sub, type Dual, type Dual2 } from "./dual";
import type { Equation, Scratch } from "./kind";

export type Four = readonly [number, number, number, number];
export type Two = readonly [number, number];

/** Σ k_i v_i - c = 0. */
export const linear = (slots: readonly number[], factors: readonly number[], constant: number): Equation => ({
  slots,
  evaluate: (v, g) => {
    let r = -constant;
    for (let i = 0; i < factors.length; i++) {
      g[i] = factors[i]!;
      r += factors[i]! * v[i]!;
    }
    return r;
  },
});

/** Radii, each with the factor it counts by. */
export type Rims = readonly (readonly [slot: number, factor: number])[];

/** Distance of two points plus radii minus `d`. Slots ax ay bx by, then the radii. */
export const distance = (a: Two, b: Two, d: number, rims: Rims = []): Equation => ({
  slots: [...a, ...b, ...rims.map(([r]) => r)],
  evaluate: (v, g) => {
    const dx = v[2]! - v[0]!,
      dy = v[3]! - v[1]!;
    const l = Math.sqrt(dx * dx + dy * dy) || TINY;
    g[2] = dx / l;
    g[3] = dy / l;
    g[0] = -g[2];
    g[1] = -g[3];
    return l - d + rimsOf(rims, 4, v, g);
  },
});

const rimsOf = (rims: Rims, from: number, v: Scratch, g: Scratch): number => {
  let sum = 0;
  for (let i = 0; i < rims.length; i++) {
    g[from + i] = rims[i]![1];
    sum += rims[i]![1] * v[from + i]!;
  }
  return sum;
};

/** |line a| - |line b|. */
export const equalLength = (a: Four, b: Four): Equation => ({
  slots: [...a, ...b],
  evaluate: (v, g) => {
    let r = 0;
    for (const [o, s] of [
      [0, 1],
      [4, -1],
    ] as const) {
      const dx = v[o + 2]! - v[o]!,
        dy = v[o + 3]! - v[o + 1]!;
      const l = Math.sqrt(dx * dx + dy * dy) || TINY;
      g[o + 2] = (s * dx) / l;
      g[o + 3] = (s * dy) / l;
      g[o] = -g[o + 2]!;
      g[o + 1] = -g[o + 3]!;
      r += s * l;
    }
    return r;
  },
});

/** f(turn from line a to line b) scaled to a length; `f` returns value and derivative at that angle. */
export const turnBetween = (a: Four, b: Four, scale: number, f: (turn: number) => Two): Equation => ({
  slots: [...a, ...b],
  evaluate: (v, g) => {
    const ax = v[2]! - v[0]!,
      ay = v[3]! - v[1]!,
      bx = v[6]! - v[4]!,
      by = v[7]! - v[5]!;
    const la = ax * ax + ay * ay || TINY,
      lb = bx * bx + by * by || TINY;
    const [r, dr] = f(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
    const k = dr * scale;
    g[2] = (k * ay) / la;
    g[3] = (-k * ax) / la;
    g[0] = -g[2];
    g[1] = -g[3];
    g[6] = (-k * by) / lb;
    g[7] = (k * bx) / lb;
    g[4] = -g[6];
    g[5] = -g[7];
    return r * scale;
  },
});

/**
 * Signed distance of a point from a line (positive at its left) plus radii minus `d`. Slots px py sx sy ex ey, then
 * the radii.
 */
export const pointLine = (p: Two, l: Four, d: number, rims: Rims = []): Equation => ({
  slots: [...p, ...l, ...rims.map(([r]) => r)],
  evaluate: (v, g) => {
    const dx = v[4]! - v[2]!,
      dy = v[5]! - v[3]!,
      px = v[0]! - v[2]!,
      py = v[1]! - v[3]!;
    const len = Math.sqrt(dx * dx + dy * dy) || TINY;
    const ux = dx / len,
      uy = dy / len;
    const side = ux * py - uy * px,
      along = (px * ux + py * uy) / len;
    g[0] = -uy;
    g[1] = ux;
    g[4] = along * uy;
    g[5] = -along * ux;
    g[2] = uy - g[4];
    g[3] = -ux - g[5];
    return side - d + rimsOf(rims, 6, v, g);
  },
});

/** Distance of a point from a circle's centre minus its radius. Slots px py cx cy r. */
export const pointCircle = (p: Two, c: Two, r: number): Equation => distance(p, c, 0, [[r, -1]]);

/** Two pairs of slots that begin at these. */
const two = (at: number): Two => [at, at + 1];

/** The half axes of an ellipse are square to each other. Slots of centre, major end, minor end begin at these. */
export const square = (centre: number, major: number, minor: number): Equation =>
  derived([...two(centre), ...two(major), ...two(minor)], (v) => {
    const a = sub(pair(v, 1), pair(v, 0)),
      b = sub(pair(v, 2), pair(v, 0));
    return dot(a, b).div(length(a).add(length(b)));
  });

/** Where d stands in an ellipse's own axes, in which it is the unit circle. */
export const ownPlace = (major: Dual2, minor: Dual2, d: Dual2): Dual2 => {
  const k = cross(major, minor);
  return [cross(d, minor).div(k), cross(major, d).div(k)];
};
/** Residual of a point on an ellipse, about mm. */
export const offEllipse = (centre: Dual2, major: Dual2, minor: Dual2, p: Dual2): Dual => {
  const a = sub(major, centre),
    b = sub(minor, centre);
  return length(ownPlace(a, b, sub(p, centre)))
    .plus(-1)
    .mul(length(a).add(length(b)).times(0.5));
};
/** A point on an ellipse whose slots (centre, major, minor) begin at `ellipse`. */
export const onEllipseAt = (point: number, ellipse: number): Equation =>
  derived([...two(point), ...two(ellipse), ...two(ellipse + 2), ...two(ellipse + 4)], (v) =>
    offEllipse(pair(v, 1), pair(v, 2), pair(v, 3), pair(v, 0)),
  );

/** Turn from line a to line b as things stand, in (-π, π]. */
export function turnNow(a: Four, b: Four, x: Float64Array): number {
  const ax = x[a[2]]! - x[a[0]]!,
    ay = x[a[3]]! - x[a[1]]!,
    bx = x[b[2]]! - x[b[0]]!,
    by = x[b[3]]! - x[b[1]]!;
  return Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
}

/** Folds an angle into (-π, π]. */
export const fold = (t: number): number => t - 2 * Math.PI * Math.ceil((t - Math.PI) / (2 * Math.PI));

/**
 * The turn from line a to line b comes to the nearest of some angles as things stand. The angle itself is the residual:
 * its sine or cosine would be stationary, and the solver stuck, where lines stand just the other way.
 */
export function turnTo(a: Four, b: Four, scale: number, x: Float64Array, targets: readonly number[]): Equation {
  const now = turnNow(a, b, x);
  const want = targets.reduce((best, t) =>
    Math.abs(fold(now - t)) < Math.abs(fold(now - best)) - ROUNDING ? t : best,
  );
  return turnBetween(a, b, scale, (t) => [fold(t - want), 1]);
}
export const ALONG = [0, Math.PI] as const;
export const ACROSS = [Math.PI / 2, -Math.PI / 2] as const;

/** Signed distance of a point from a line as things stand; positive at its left. */
export function sideNow(p: Two, l: Four, x: Float64Array): number {
  const dx = x[l[2]]! - x[l[0]]!,
    dy = x[l[3]]! - x[l[1]]!;
  return (dx * (x[p[1]]! - x[l[1]]!) - dy * (x[p[0]]! - x[l[0]]!)) / (Math.sqrt(dx * dx + dy * dy) || TINY);
}
