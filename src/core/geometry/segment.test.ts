import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bezierAt, splitBezier, type Bezier } from "./bezier";
import { meetings } from "./meet";
import {
  headingAt,
  isWhole,
  nearestOn,
  reversed,
  sampled,
  segmentAt,
  segmentBox,
  segmentEnd,
  segmentLength,
  segmentMotion,
  segmentStart,
  stretch,
  sweptArea,
  type Segment,
} from "./segment";
import { centripetalKnots, deBoor, derivativeWeights, splineBeziers, splinePoles } from "./spline";
import type { Vec2 } from "./vector";

const CURVE: Bezier = [
  [0, 0],
  [5, 12],
  [14, -6],
  [20, 4],
];
const SEGMENTS: [string, Segment][] = [
  ["line", { kind: "line", a: [1, 2], b: [7, -3] }],
  ["arc", { kind: "arc", centre: [2, 1], radius: 5, from: 0.4, sweep: 2.1 }],
  ["clockwise arc", { kind: "arc", centre: [2, 1], radius: 5, from: 0.4, sweep: -4 }],
  ["ellipse", { kind: "ellipse", centre: [0, 0], major: [8, 1], minor: [-0.5, 4], from: 0.3, sweep: 3 }],
  ["left-handed ellipse", { kind: "ellipse", centre: [0, 0], major: [8, 1], minor: [0.5, -4], from: 0.3, sweep: 3 }],
  [
    "spline",
    {
      kind: "spline",
      beziers: splineBeziers(
        [
          [0, 0],
          [10, 6],
          [20, 0],
          [30, 9],
        ],
        [0, 1, 2.2, 3],
      ),
    },
  ],
];
const near = (a: Vec2, b: Vec2, digits = 9) => {
  expect(a[0]).toBeCloseTo(b[0], digits);
  expect(a[1]).toBeCloseTo(b[1], digits);
};

describe.each(SEGMENTS)("a %s", (_, s) => {
  it("runs from its start to its end, and back when reversed", () => {
    near(segmentAt(s, 0), segmentStart(s));
    near(segmentAt(s, 1), segmentEnd(s));
    near(segmentStart(reversed(s)), segmentEnd(s));
    near(segmentAt(reversed(s), 0.25), segmentAt(s, 0.75));
  });
  it("has the derivatives that differences give", () => {
    const t = 0.37,
      h = 1e-5,
      [d, e] = segmentMotion(s, t),
      [p, q, r] = [segmentAt(s, t - h), segmentAt(s, t), segmentAt(s, t + h)];
    for (const k of [0, 1] as const) {
      expect((r[k] - p[k]) / (2 * h)).toBeCloseTo(d[k], 4);
      expect(Math.abs((r[k] - 2 * q[k] + p[k]) / (h * h) - e[k])).toBeLessThan(1e-3 * Math.max(1, Math.abs(e[k])));
    }
  });
  it("is the sum of its stretches", () => {
    const [a, b] = [stretch(s, 0, 0.4), stretch(s, 0.4, 1)];
    near(segmentEnd(a), segmentStart(b));
    expect(segmentLength(a) + segmentLength(b)).toBeCloseTo(segmentLength(s), 6);
    expect(sweptArea(a) + sweptArea(b)).toBeCloseTo(sweptArea(s), 9);
    near(
      segmentAt(stretch(s, 0.2, 0.6), 0.5),
      s.kind === "spline" ? segmentAt(stretch(s, 0.2, 0.6), 0.5) : segmentAt(s, 0.4),
    );
  });
  it("sweeps the area of a fine polygon along it", () => {
    const points = [...sampled(s, 1e-3), segmentEnd(s)];
    const area = points.slice(1).reduce((sum, p, i) => sum + (points[i]![0] * p[1] - points[i]![1] * p[0]) / 2, 0);
    expect(sweptArea(s)).toBeCloseTo(area, 3);
  });
  it("lies in its box and is found by the point nearest to it", () => {
    const [low, high] = segmentBox(s);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (t) => {
        const p = segmentAt(s, t);
        for (const k of [0, 1] as const) expect(p[k] >= low[k] - 1e-9 && p[k] <= high[k] + 1e-9).toBe(true);
        expect(nearestOn(s, p).distance).toBeLessThan(1e-6);
      }),
      { numRuns: 40, seed: 2 },
    );
  });
});

describe("closed forms", () => {
  it("a quarter circle's length, area and curvature", () => {
    const s: Segment = { kind: "arc", centre: [0, 0], radius: 4, from: 0, sweep: Math.PI / 2 };
    expect(segmentLength(s)).toBeCloseTo(2 * Math.PI, 12);
    expect(sweptArea(s)).toBeCloseTo(4 * Math.PI, 12);
    expect(headingAt(s, 0.5)[1]).toBeCloseTo(0.25, 12);
  });
  it("a whole ellipse's area, and Ramanujan's perimeter", () => {
    const s: Segment = { kind: "ellipse", centre: [3, 3], major: [5, 0], minor: [0, 3], from: 0, sweep: 2 * Math.PI };
    expect(isWhole(s)).toBe(true);
    expect(sweptArea(s)).toBeCloseTo(15 * Math.PI, 9);
    const h = (2 / 8) ** 2;
    expect(segmentLength(s)).toBeCloseTo(Math.PI * 8 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h))), 4);
  });
  it("a Bézier curve halved is the same curve", () => {
    const [a, b] = splitBezier(CURVE, 0.3);
    near(bezierAt(a, 0.5), bezierAt(CURVE, 0.15));
    near(bezierAt(b, 0.5), bezierAt(CURVE, 0.65));
  });
});

describe("splines", () => {
  const points: Vec2[] = [
    [0, 0],
    [10, 6],
    [22, -3],
    [30, 9],
    [41, 9],
  ];
  const knots = centripetalKnots(points);
  const beziers = splineBeziers(points, knots, [2, 5]);
  it("pass through their points with continuous slope and curvature", () => {
    beziers.slice(1).forEach((b, i) => {
      const a = beziers[i]!,
        [h, k] = [knots[i + 1]! - knots[i]!, knots[i + 2]! - knots[i + 1]!];
      near(a[3], points[i + 1]!);
      for (const c of [0, 1] as const) {
        expect((a[3][c] - a[2][c]) / h).toBeCloseTo((b[1][c] - b[0][c]) / k, 9);
        expect((a[3][c] - 2 * a[2][c] + a[1][c]) / (h * h)).toBeCloseTo((b[2][c] - 2 * b[1][c] + b[0][c]) / (k * k), 8);
      }
    });
  });
  it("leave along their handle, and end uncurved without one", () => {
    near(beziers[0]![1], [2, 5]);
    const [, b, c, d] = beziers[beziers.length - 1]!;
    near([d[0] - 2 * c[0] + b[0], d[1] - 2 * c[1] + b[1]], [0, 0]);
  });
  it("have slopes that add up to nothing when every point moves alike", () => {
    for (const row of derivativeWeights(knots, true, false)) expect(row.reduce((a, b) => a + b, 0)).toBeCloseTo(0, 12);
  });
  it("are the same as one B-spline", () => {
    const { poles, knots: k } = splinePoles(beziers),
      last = k[k.length - 1]!,
      all = [0, 0, 0, ...k, last, last, last];
    beziers.forEach((b, i) => near(deBoor(3, all, poles, k[i]! + 0.4 * (k[i + 1]! - k[i]!)), bezierAt(b, 0.4), 8));
  });
});

describe("where segments meet", () => {
  const ellipse: Segment = {
    kind: "ellipse",
    centre: [0, 0],
    major: [5, 0],
    minor: [0, 3],
    from: 0,
    sweep: 2 * Math.PI,
  };
  const line = (a: Vec2, b: Vec2): Segment => ({ kind: "line", a, b });
  const arc = (centre: Vec2, radius: number, from = 0, sweep = 2 * Math.PI): Segment => ({
    kind: "arc",
    centre,
    radius,
    from,
    sweep,
  });
  it.each<[string, Segment, Segment, number]>([
    ["a line through an ellipse", line([-9, 0], [9, 0]), ellipse, 2],
    ["a line touching an ellipse", line([-9, 3], [9, 3]), ellipse, 1],
    ["a line past an ellipse", line([-9, 3.1], [9, 3.1]), ellipse, 0],
    ["a line ending inside", line([0, 0], [9, 0]), ellipse, 1],
    ["a circle across an ellipse", arc([0, 0], 4), ellipse, 4],
    ["a circle touching an ellipse at its ends", arc([0, 0], 5), ellipse, 2],
    [
      "two ellipses crossed",
      { kind: "ellipse", centre: [0, 0], major: [3, 0], minor: [0, 5], from: 0, sweep: 2 * Math.PI },
      ellipse,
      4,
    ],
    ["an arc that stops short of a line", arc([0, 0], 5, 0.2, 1), line([0, 0], [9, 0]), 0],
    ["arcs of one circle, end to end", arc([0, 0], 5, 0, 1), arc([0, 0], 5, 1, 1), 1],
    ["a spline and a line", { kind: "spline", beziers: [CURVE] }, line([-1, 3], [25, 3]), 3],
  ])("%s", (_, p, q, count) => {
    for (const [a, b] of [
      [p, q],
      [q, p],
    ] as const) {
      const found = meetings(a, b, 1e-6);
      expect(found).toHaveLength(count);
      for (const m of found) {
        near(segmentAt(a, m.t), m.at, 5);
        near(segmentAt(b, m.u), m.at, 5);
      }
    }
  });
});
