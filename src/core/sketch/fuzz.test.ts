import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { curveKind } from "./curves/registry";
import { findRegions } from "./regions";
import { KINDS } from "./constraints/registry";
import { CONSTRAINT_KINDS, DIMENSION_KINDS, SketchSchema, typeOf, type Relation, type Sketch } from "./sketch";
import { solveSketch } from "./solve";

const runs = process.env["CALIPER_LONG"] ? 5000 : 250;
const coordinate = fc.oneof(fc.integer({ min: -60, max: 60 }), fc.double({ min: -1e3, max: 1e3, noNaN: true }));
const point = fc.tuple(coordinate, coordinate);
const ids = ["l1", "l2", "l3", "c1", "c2"];
const ref = fc.constantFrom("origin", "x-axis", "y-axis", ...ids, ...ids.flatMap((i) => [`${i}.start`, `${i}.end`, `${i}.centre`]));
const of = fc.array(ref, { minLength: 1, maxLength: 2 });
const anySketch: fc.Arbitrary<Sketch> = fc.record({
  plane: fc.constant({ base: "top" as const }),
  curves: fc.tuple(point, point, point, point, point, point, point, point, fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 30 })).map(([a, b, c, d, e, f, g, h, r, s]) => [
    { id: "l1", kind: "line" as const, start: a, end: b }, { id: "l2", kind: "line" as const, start: c, end: d }, { id: "l3", kind: "line" as const, start: e, end: f },
    { id: "c1", kind: "circle" as const, centre: g, radius: r }, { id: "c2", kind: "circle" as const, centre: h, radius: s },
  ]),
  constraints: fc.array(fc.record({ kind: fc.constantFrom(...CONSTRAINT_KINDS), of }), { minLength: 8, maxLength: 60 }).map((l) => l.map((c, i) => ({ id: `k${i}`, ...c }))),
  dimensions: fc.array(fc.record({ kind: fc.constantFrom(...DIMENSION_KINDS), of, value: fc.oneof(fc.integer({ min: -3, max: 90 }), fc.constantFrom("12 mm", "1/0", "2 5/8 in", "", "=(4", "1e9")) }), { minLength: 4, maxLength: 40 }).map((l) => l.map((d, i) => ({ id: `m${i}`, ...d }))),
});

/** The same with relations that do not fit their arguments taken out: these reach the solver. */
const sketch = anySketch.map((s): Sketch => {
  const fits = (r: Relation) => (r.of[0] !== r.of[1] || r.of.length === 1) && KINDS[r.kind].takes.some((t) => t.length === r.of.length && t.every((want, i) => typeOf(s, r.of[i]!) === want));
  return { ...s, constraints: s.constraints.filter(fits), dimensions: s.dimensions.filter(fits).filter((d) => d.value !== "" && d.value !== "=(4" && d.value !== "1/0" && !(Number(d.value) <= 0)) };
});

describe("anything thrown at the solver", () => {
  it("ends in a result or a plain refusal, never in a number that is none", () => {
    let solved = 0, tied = 0;
    fc.assert(fc.property(fc.oneof(sketch, anySketch), (s) => {
      const r = solveSketch(s, "mm");
      if (!r.ok) {
        expect(r.refusal.sentence).toMatch(/\.$/);
        return;
      }
      if (r.value.solved) solved++;
      if (s.constraints.length + s.dimensions.length > 2) tied++;
      // what disagrees is always named
      else if (!r.value.solved && s.dimensions.length) expect(r.value.conflict.length).toBeGreaterThan(0);
      for (const c of r.value.sketch.curves) for (const v of curveKind(c).numbers(c)) expect(Number.isFinite(v)).toBe(true);
      for (const g of findRegions(r.value.sketch).regions) expect(g.area).toBeGreaterThan(-1e-6);
    }), { numRuns: runs, seed: 11 });
    // most draws must not be refusals, or nothing was tried
    expect(solved).toBeGreaterThan(runs / 5);
    expect(tied).toBeGreaterThan(runs / 20);
  });

  it("any JSON is read or refused", () => {
    fc.assert(fc.property(fc.json(), (text) => {
      const r = SketchSchema.safeParse(JSON.parse(text));
      expect(typeof r.success).toBe("boolean");
    }), { numRuns: runs, seed: 12 });
  });

  it("a valid set, disturbed, keeps its freedoms when turned into another order of curves", () => {
    fc.assert(fc.property(sketch, (s) => {
      const a = solveSketch(s, "mm"), b = solveSketch({ ...s, curves: [...s.curves].reverse() }, "mm");
      expect(a.ok).toBe(b.ok);
      if (a.ok && b.ok && a.value.solved && b.value.solved) expect(a.value.freedoms).toBe(b.value.freedoms);
    }), { numRuns: Math.ceil(runs / 5), seed: 13 });
  });
});
