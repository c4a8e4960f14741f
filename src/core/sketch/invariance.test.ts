import fc from "fast-check";
import { mappedCurve } from "./curves/registry";
import { describe, expect, it } from "vitest";
import { emptySketch, pointAt, type Constraint, type Dimension, type Sketch } from "./sketch";
import { solveSketch, type Diagnosis } from "./solve";
import { seeded } from "./testing/ladder";

const solve = (s: Sketch): Diagnosis => {
  const r = solveSketch(s, "mm");
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};

/** A bracket: an outline with a slanting side, and two holes placed by relations; one width is left out. */
function bracket(): Sketch {
  const s = emptySketch("top");
  const corners: [number, number][] = [
    [0, 0],
    [60, 0],
    [60, 25],
    [35, 40],
    [0, 40],
  ];
  corners.forEach((a, i) => s.curves.push({ id: `l${i + 1}`, kind: "line", start: a, end: corners[(i + 1) % 5]! }));
  s.curves.push({ id: "c1", kind: "circle", centre: [15, 20], radius: 6 });
  s.curves.push({ id: "c2", kind: "circle", centre: [40, 15], radius: 6 });
  const tie = (kind: Constraint["kind"], ...of: string[]) =>
    s.constraints.push({ id: `k${s.constraints.length}`, kind, of });
  const size = (kind: Dimension["kind"], of: string[], value: number) =>
    s.dimensions.push({ id: `m${s.dimensions.length}`, kind, of, value });
  for (let i = 1; i <= 5; i++) tie("coincident", `l${i}.end`, `l${(i % 5) + 1}.start`);
  tie("perpendicular", "l1", "l2");
  tie("parallel", "l1", "l4");
  tie("perpendicular", "l5", "l1");
  tie("equal", "c1", "c2");
  size("length", ["l1"], 60);
  size("length", ["l2"], 25);
  size("length", ["l5"], 40);
  size("angle", ["l2", "l3"], 60);
  size("diameter", ["c1"], 12);
  size("point-line", ["c1.centre", "l5"], 15);
  size("point-line", ["c1.centre", "l1"], 20);
  size("distance", ["c1.centre", "c2.centre"], 25.5);
  return s;
}

/** The sketch turned, moved and scaled, sizes with it. */
function carried(s: Sketch, turn: number, shift: readonly [number, number], scale: number): Sketch {
  const p = ([x, y]: readonly [number, number]): [number, number] => [
    (x * Math.cos(turn) - y * Math.sin(turn)) * scale + shift[0] * scale,
    (x * Math.sin(turn) + y * Math.cos(turn)) * scale + shift[1] * scale,
  ];
  return {
    ...s,
    curves: s.curves.map((c) => mappedCurve(c, p, scale)),
    dimensions: s.dimensions.map((d) => (d.kind === "angle" ? d : { ...d, value: Number(d.value) * scale })),
  };
}

const turn = fc.double({ min: 0, max: 6.28, noNaN: true });
const shift = fc.tuple(
  fc.double({ min: -200, max: 200, noNaN: true }),
  fc.double({ min: -200, max: 200, noNaN: true }),
);

describe("what a sketch says of itself does not depend on where it lies", () => {
  const still = solve(bracket());

  it("the bracket has three freedoms of its own place and one of its second hole", () => {
    expect(still.solved).toBe(true);
    expect(still.freedoms).toBe(4);
  });

  it("nor on turn or place", () => {
    fc.assert(
      fc.property(turn, shift, (t, d) => {
        const r = solve(carried(bracket(), t, d, 1));
        expect(r.solved).toBe(true);
        expect(r.freedoms).toBe(4);
        expect([...r.loose].sort()).toEqual([...still.loose].sort());
      }),
      { numRuns: 40, seed: 5 },
    );
  });

  it.each([1e-3, 1e-2, 0.1, 10, 100, 500])("nor on scale: %d times", (scale) => {
    const r = solve(carried(bracket(), 0.4, [3, -8], scale));
    expect(r.solved).toBe(true);
    expect(r.freedoms).toBe(4);
  });

  it("adding a constraint never adds freedom", () => {
    const extras: [Constraint["kind"], string[]][] = [
      ["horizontal", ["l1"]],
      ["coincident", ["l1.start", "origin"]],
      ["point-on-curve", ["c2.centre", "x-axis"]],
      ["midpoint", ["c2.centre", "l3"]],
      ["fixed", ["l1"]],
      ["parallel", ["l2", "l5"]],
    ];
    for (const [kind, of] of extras) {
      const s = bracket();
      s.constraints.push({ id: "extra", kind, of });
      const r = solve(s);
      if (r.solved) expect(r.freedoms).toBeLessThanOrEqual(4);
      else expect(r.conflict).toContain("extra");
    }
  });
});

describe("a solved sketch disturbed a little comes back to the same shape", () => {
  it("from anywhere within a tenth of its smallest feature", () => {
    const s = bracket();
    s.constraints.push(
      { id: "o", kind: "coincident", of: ["l1.start", "origin"] },
      { id: "h", kind: "horizontal", of: ["l1"] },
    );
    s.dimensions.push({ id: "v", kind: "vertical-distance", of: ["origin", "c2.centre"], value: 15 });
    const want = solve(s);
    expect(want.freedoms).toBe(0);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const rnd = seeded(seed);
        const off = (p: readonly [number, number]): [number, number] => [
          p[0] + (rnd() - 0.5) * 1.2,
          p[1] + (rnd() - 0.5) * 1.2,
        ];
        const disturbed = {
          ...want.sketch,
          curves: want.sketch.curves.map((c) => mappedCurve(c, off, 0.9 + 0.2 * rnd())),
        };
        const back = solve(disturbed);
        expect(back.solved).toBe(true);
        for (const ref of ["l2.end", "l3.end", "l4.end", "c1.centre", "c2.centre"]) {
          const [x, y] = pointAt(back.sketch, ref);
          const [u, v] = pointAt(want.sketch, ref);
          expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-8 * 60);
        }
      }),
      { numRuns: 60, seed: 9 },
    );
  });
});
