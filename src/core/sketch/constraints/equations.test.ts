import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { angle } from "./angle";
import {
  distance,
  equalLength,
  linear,
  pointCircle,
  pointLine,
  sideNow,
  turnBetween,
  turnNow,
  turnTo,
} from "./equations";
import type { Equation, Slots } from "./kind";

/** Derivatives by central differences. */
function numeric(e: Equation, v: Float64Array): number[] {
  const scratch = new Float64Array(v.length);
  return Array.from(v, (_, i) => {
    const h = 1e-6;
    const up = Float64Array.from(v);
    const down = Float64Array.from(v);
    up[i]! += h;
    down[i]! -= h;
    return (e.evaluate(up, scratch) - e.evaluate(down, scratch)) / (2 * h);
  });
}

const P = [0, 1] as const;
const Q = [2, 3] as const;
const A = [0, 1, 2, 3] as const;
const B = [4, 5, 6, 7] as const;

const EQUATIONS: [string, Equation, number][] = [
  ["linear", linear([0, 1, 2], [1, -0.5, 2], 3), 3],
  ["distance", distance(P, Q, 5), 4],
  ["equal length", equalLength(A, B), 8],
  ["parallel", turnBetween(A, B, 40, (t) => [Math.sin(t), Math.cos(t)]), 8],
  ["perpendicular", turnBetween(A, B, 40, (t) => [Math.cos(t), -Math.sin(t)]), 8],
  ["point to line", pointLine(P, [2, 3, 4, 5], 2), 6],
  ["point to circle", pointCircle(P, Q, 4), 5],
];

describe("derivatives agree with differences", () => {
  it.each(EQUATIONS)("%s", (_, equation, width) => {
    const value = fc.double({ min: -20, max: 20, noNaN: true });
    fc.assert(
      fc.property(fc.array(value, { minLength: width, maxLength: width }), (list) => {
        // lines and distances of next to nothing have no direction to derive
        const apart = (a: number, b: number, c: number, d: number) =>
          Math.hypot(list[c]! - list[a]!, list[d]! - list[b]!) > 0.5;
        fc.pre(width < 4 || apart(0, 1, 2, 3));
        fc.pre(width < 6 || apart(2, 3, 4, 5));
        fc.pre(width < 8 || apart(4, 5, 6, 7));
        const v = Float64Array.from(list);
        const g = new Float64Array(width);
        equation.evaluate(v, g);
        numeric(equation, v).forEach((n, i) =>
          expect(Math.abs(n - g[i]!)).toBeLessThan(1e-3 * Math.max(1, Math.abs(n))),
        );
      }),
      { numRuns: 60, seed: 3 },
    );
  });
});

describe("the other way round is not stuck", () => {
  it.each([
    [0, 90],
    [180, 90],
    [90, 0],
    [-90, 0],
  ])("lines at %d° have a way to %d°", (degrees, target) => {
    const t = (degrees * Math.PI) / 180,
      x = Float64Array.from([0, 0, 1, 0, 0, 0, Math.cos(t), Math.sin(t)]);
    const g = new Float64Array(8),
      want = (target * Math.PI) / 180;
    const r = turnTo(A, B, 1, x, target ? [want, -want] : [0, Math.PI]).evaluate(x, g);
    expect(Math.abs(r)).toBeCloseTo(Math.PI / 2, 9);
    expect(Math.hypot(...g)).toBeGreaterThan(0.5);
  });
});

describe("values", () => {
  const g = new Float64Array(8);

  it("distance is 0 where it is met", () => {
    expect(distance(P, Q, 5).evaluate(Float64Array.from([0, 0, 3, 4]), g)).toBeCloseTo(0, 15);
  });
  it("the left of a line is positive", () => {
    const x = Float64Array.from([0, 2, 0, 0, 10, 0]);
    expect(sideNow([0, 1], [2, 3, 4, 5], x)).toBe(2);
    x[1] = -2;
    expect(sideNow([0, 1], [2, 3, 4, 5], x)).toBe(-2);
  });
  it("a quarter turn counter-clockwise is half pi", () => {
    expect(turnNow(A, B, Float64Array.from([0, 0, 1, 0, 0, 0, 0, 1]))).toBeCloseTo(Math.PI / 2, 15);
  });
  it("a point on a circle has no residual", () => {
    expect(pointCircle(P, Q, 4).evaluate(Float64Array.from([3, 4, 0, 0, 5]), g)).toBe(0);
  });
  it("nothing divides by a line of no length", () => {
    for (const [, equation, width] of EQUATIONS) {
      const r = equation.evaluate(new Float64Array(width), new Float64Array(width));
      expect(Number.isFinite(r)).toBe(true);
    }
  });
});

describe("angle", () => {
  const slots = { scale: 1, line: (ref: string) => (ref === "a" ? A : B) } as unknown as Slots;
  const at = (degrees: number) => {
    const t = (degrees * Math.PI) / 180;
    return Float64Array.from([0, 0, 1, 0, 0, 0, Math.cos(t), Math.sin(t)]);
  };

  it.each([
    [30, false, 30],
    [150, false, 150],
    [-60, false, 60],
    [30, true, 150],
    [-150, true, 30],
  ])("of lines at %d°, flipped %s, measures %d°", (turn, flip, want) => {
    expect((angle.measure!(slots, ["a", "b"], at(turn), { flip }) * 180) / Math.PI).toBeCloseTo(want, 10);
  });
  it.each([
    [25, 30, false],
    [-25, 30, false],
    [155, 30, true],
    [179, 175, false],
  ])("near %d° wants %d° on the side it is on (flipped %s)", (turn, size, flip) => {
    const x = at(turn);
    const [equation] = angle.equations!(slots, ["a", "b"], (size * Math.PI) / 180, x, { flip });
    const r = equation!.evaluate(x, new Float64Array(8));
    expect(Math.abs((r * 180) / Math.PI)).toBeCloseTo(5 * (turn === 179 ? 0.8 : 1), 8);
  });
});
