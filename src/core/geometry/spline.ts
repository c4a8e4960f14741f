import { KNOT_GAP, ROUNDING } from "./tolerance";
import type { Bezier } from "./bezier";
import type { Vec2 } from "./vector";

/**
 * A cubic spline through points with continuous curvature, over given knots. Its derivative at every knot is a
 * linear combination of the points it goes through and of its two end handles; the handles are the second and the
 * last but one Bézier pole, and where one is missing the end is natural (no curvature).
 * After de Boor, A Practical Guide to Splines, chapter 4.
 * @returns weights[i][j]: share of control j in the derivative at knot i. Controls: the points, start handle, end
 * handle
 */
export function derivativeWeights(knots: readonly number[], hasStart: boolean, hasEnd: boolean): number[][] {
  const n = knots.length,
    width = n + 2;
  const h = knots.slice(1).map((t, i) => t - knots[i]!);
  const lower = new Array<number>(n).fill(0),
    diagonal = new Array<number>(n).fill(1),
    upper = new Array<number>(n).fill(0);
  const right = Array.from({ length: n }, () => new Array<number>(width).fill(0));
  const end = (row: number, next: number, span: number, handle: number | undefined, sign: number) => {
    if (handle !== undefined) {
      right[row]![handle] = (sign * 3) / span;
      right[row]![row] = (-sign * 3) / span;
      return;
    }
    // no curvature: 2 m0 + m1 = 3 (p1 - p0) / h
    diagonal[row] = 2;
    (row < next ? upper : lower)[row] = 1;
    right[row]![next] = (sign * 3) / span;
    right[row]![row] = (-sign * 3) / span;
  };
  end(0, 1, h[0]!, hasStart ? n : undefined, 1);
  end(n - 1, n - 2, h[n - 2]!, hasEnd ? n + 1 : undefined, -1);
  for (let i = 1; i < n - 1; i++) {
    const a = h[i - 1]!,
      b = h[i]!;
    lower[i] = b;
    diagonal[i] = 2 * (a + b);
    upper[i] = a;
    right[i]![i + 1] = (3 * a) / b;
    right[i]![i - 1] = (-3 * b) / a;
    right[i]![i] = 3 * (b / a - a / b);
  }
  // Thomas' algorithm, all right-hand sides at once
  for (let i = 1; i < n; i++) {
    const f = lower[i]! / diagonal[i - 1]!;
    diagonal[i]! -= f * upper[i - 1]!;
    for (let j = 0; j < width; j++) right[i]![j]! -= f * right[i - 1]![j]!;
  }
  for (let i = n - 1; i >= 0; i--)
    for (let j = 0; j < width; j++)
      right[i]![j] = (right[i]![j]! - (i < n - 1 ? upper[i]! * right[i + 1]![j]! : 0)) / diagonal[i]!;
  return right;
}

/**
 * The spline as Bézier curves, one a span. @param controls the points, start handle, end handle (any point where
 * missing)
 */
export function splineBeziers(points: readonly Vec2[], knots: readonly number[], start?: Vec2, end?: Vec2): Bezier[] {
  const weights = derivativeWeights(knots, start !== undefined, end !== undefined);
  const controls = [...points, start ?? [0, 0], end ?? [0, 0]];
  const slope = (i: number): Vec2 =>
    weights[i]!.reduce<[number, number]>((s, w, j) => [s[0] + w * controls[j]![0], s[1] + w * controls[j]![1]], [0, 0]);
  const slopes = points.map((_, i) => slope(i));
  return points.slice(1).map((q, i): Bezier => {
    const p = points[i]!,
      k = (knots[i + 1]! - knots[i]!) / 3,
      m = slopes[i]!,
      l = slopes[i + 1]!;
    return [p, [p[0] + k * m[0], p[1] + k * m[1]], [q[0] - k * l[0], q[1] - k * l[1]], q];
  });
}

/**
 * Knots by the square root of the chords: no loops between uneven points. After Lee, Computer-Aided Design 21 (1989).
 */
export function centripetalKnots(points: readonly Vec2[]): number[] {
  const knots = [0];
  points
    .slice(1)
    .forEach((p, i) =>
      knots.push(knots[i]! + Math.max(Math.sqrt(Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1])), KNOT_GAP)),
    );
  const last = knots[knots.length - 1]!;
  return knots.map((k) => Number(((k / last) * (points.length - 1)).toPrecision(12)));
}

/**
 * A chain of Bézier curves as one B-spline of continuous curvature: a pole a joint, by blossoms.
 * After Farin, Curves and Surfaces for CAGD, chapter 8. Knots are distinct, without their multiplicity.
 */
export function splinePoles(beziers: readonly Bezier[]): { poles: Vec2[]; knots: number[] } {
  const n = beziers.length,
    gap = (a: Vec2, b: Vec2) => Math.hypot(b[0] - a[0], b[1] - a[1]);
  const spans = [1];
  for (let i = 1; i < n; i++)
    spans.push(
      (spans[i - 1]! * gap(beziers[i]![0], beziers[i]![1])) / (gap(beziers[i - 1]![2], beziers[i - 1]![3]) || ROUNDING),
    );
  const poles: Vec2[] = [beziers[0]![0], beziers[0]![1]];
  for (let i = 0; i + 1 < n; i++) {
    const [, b, c] = beziers[i]!,
      k = spans[i + 1]! / spans[i]!;
    poles.push([c[0] + (c[0] - b[0]) * k, c[1] + (c[1] - b[1]) * k]);
  }
  poles.push(beziers[n - 1]![2], beziers[n - 1]![3]);
  return { poles, knots: spans.reduce<number[]>((list, h) => [...list, list[list.length - 1]! + h], [0]) };
}

/** Value of a B-spline by de Boor's recursion. @param knots with multiplicity */
export function deBoor(degree: number, knots: readonly number[], poles: readonly Vec2[], t: number): Vec2 {
  const n = poles.length;
  let k = degree;
  while (k < n - 1 && t >= knots[k + 1]!) k++;
  const d = poles.slice(k - degree, k + 1).map((p) => [...p] as [number, number]);
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const i = j + k - degree,
        w = knots[i + degree - r + 1]! - knots[i]!,
        a = w ? (t - knots[i]!) / w : 0;
      d[j] = [(1 - a) * d[j - 1]![0] + a * d[j]![0], (1 - a) * d[j - 1]![1] + a * d[j]![1]];
    }
  return d[degree]!;
}
