import fc from "fast-check";
import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";
import { applyToSketch } from "./commands";
import { type SketchCommand } from "./command-schema";
import { curveKind } from "./curves/registry";
import { Drag } from "./drag";
import { emptySketch, pointAt, SketchSchema, type Sketch } from "./sketch";
import { solveSketch, type Diagnosis } from "./solve";
import { ratesOf, sizeOf } from "./testing/disturbed";
import { ladder } from "./testing/ladder";
import { gearOutline, lidOutline, roundedOutline } from "./testing/outlines";
import { IS_LONG } from "@/core/part/testing/chosen";

const folder = fileURLToPath(new URL("./testing/table/", import.meta.url));
const solve = (s: Sketch, unit: "mm" | "in" = "mm"): Diagnosis => {
  const r = solveSketch(s, unit);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
const table = readdirSync(folder)
  .sort()
  .flatMap((name) => {
    const c = JSON.parse(readFileSync(folder + name, "utf8")) as {
      units: "mm" | "in";
      sketch: unknown;
      expect: { conflicting?: string[]; freedoms?: number };
    };
    if (c.expect.conflicting) return [];
    const sketch = solve(SketchSchema.parse(c.sketch), c.units).sketch;
    return [{ name, sketch, units: c.units, isRigid: c.expect.freedoms === 0 }];
  });

describe("from rough drawings", () => {
  const STARTS = IS_LONG ? 60 : 12;
  it.each([
    [0.05, 1, 0.99],
    [0.1, 0.999, 0.98],
    [0.2, 0.99, 0.93],
  ])("off by %d of the size, at least %d are met and %d keep their arrangement", (share, met, kept) => {
    expect(ratesOf(table, share, STARTS).met).toBeGreaterThanOrEqual(met);
    // what can move comes back elsewhere by right
    const rigid = table.filter((c) => c.isRigid);
    expect(ratesOf(rigid, share, STARTS).kept).toBeGreaterThanOrEqual(kept);
  });
  // short lines and small arcs, some of which a hand draws the wrong way round
  it.each([
    ["a rounded outline", roundedOutline(60, 40, 8), 1, 1],
    ["one nearly without upright sides", roundedOutline(80, 20, 9), 0.95, 0.6],
    ["one with small corners", roundedOutline(60, 40, 3), 0.95, 0.6],
    ["a lid of tangent arcs", lidOutline(60, 15, 60), 1, 1],
    ["a gear of eight teeth", gearOutline(8, 30, 24), 1, 1],
    ["a gear of twelve", gearOutline(12, 30, 24), 1, 0.9],
  ])("%s: so much is met from 5 % off, so much from 10 %", (name, drawn, five, ten) => {
    const { solved, sketch } = solve(drawn);
    expect(solved).toBe(true);
    const list = [{ name, sketch, units: "mm" as const }];
    expect(ratesOf(list, 0.05, 3 * STARTS).met).toBeGreaterThanOrEqual(five);
    expect(ratesOf(list, 0.1, 3 * STARTS).met).toBeGreaterThanOrEqual(ten);
  });
  it("nothing that could be met is called a conflict, however rough the start", () => {
    const rigid = table.filter((c) => c.isRigid);
    const { conflicts } = ratesOf(rigid, 0.6, 4);
    expect([...conflicts]).toEqual([]);
  });
});

const line = (id: string, start: [number, number], end: [number, number]) => ({
  id,
  kind: "line" as const,
  start,
  end,
});
function rectangle(): Sketch {
  const s = emptySketch("top");
  const corners: [number, number][] = [
    [0, 0],
    [40, 0],
    [40, 20],
    [0, 20],
  ];
  corners.forEach((a, i) => s.curves.push(line(`l${i + 1}`, a, corners[(i + 1) % 4]!)));
  for (let i = 1; i <= 4; i++)
    s.constraints.push({ id: `j${i}`, kind: "coincident", of: [`l${i}.end`, `l${(i % 4) + 1}.start`] });
  s.constraints.push({ id: "h1", kind: "horizontal", of: ["l1"] }, { id: "h3", kind: "horizontal", of: ["l3"] });
  s.constraints.push({ id: "v2", kind: "vertical", of: ["l2"] }, { id: "v4", kind: "vertical", of: ["l4"] });
  return s;
}
const onlyThese = (s: Sketch, ids: readonly string[]): Sketch => ({
  ...s,
  constraints: s.constraints.filter((c) => ids.includes(c.id)),
  dimensions: s.dimensions.filter((d) => ids.includes(d.id)),
});

describe("what is called a conflict", () => {
  it("a rectangle of two widths: the set named cannot be met alone, and is smallest", () => {
    const s = rectangle();
    s.dimensions.push(
      { id: "w1", kind: "length", of: ["l1"], value: 40 },
      { id: "w3", kind: "length", of: ["l3"], value: 50 },
    );
    const { solved, conflict } = solve(s);
    expect(solved).toBe(false);
    expect(conflict).toEqual(expect.arrayContaining(["w1", "w3"]));
    expect(solve(onlyThese(s, conflict)).solved).toBe(false);
    for (const id of conflict)
      expect(
        solve(
          onlyThese(
            s,
            conflict.filter((o) => o !== id),
          ),
        ).solved,
        id,
      ).toBe(true);
    // what keeps both ends upright, or both sides level, is part of it
    expect(conflict.some((id) => /^[hv]/.test(id))).toBe(true);
  });
  it("a line drawn exactly level takes a length across and an angle", () => {
    const s = emptySketch("top");
    s.curves.push(line("l1", [0, 0], [10, 0]));
    s.constraints.push({ id: "o", kind: "coincident", of: ["l1.start", "origin"] });
    s.dimensions.push({ id: "m1", kind: "vertical-distance", of: ["origin", "l1.end"], value: 6 });
    s.dimensions.push({ id: "m2", kind: "length", of: ["l1"], value: 10 });
    const d = solve(s);
    expect([d.solved, d.freedoms]).toEqual([true, 0]);
    expect(Math.abs(pointAt(d.sketch, "l1.end")[0])).toBeCloseTo(8, 9);
  });
  it.each([0, 180])("an angle of %d is told to be parallel or collinear", (value) => {
    const s = emptySketch("top");
    s.curves.push(line("l1", [0, 0], [10, 0]), line("l2", [0, 5], [10, 7]));
    s.dimensions.push({ id: "m1", kind: "angle", of: ["l1", "l2"], value });
    const r = solveSketch(s, "mm");
    expect(!r.ok && r.refusal.sentence).toMatch(/parallel or a collinear constraint/);
  });
  it("what can be met only from another drawing is said so, and drawn so when asked", () => {
    // an arc far on the wrong side: short as drawn, it would have to be turned inside out
    const s = emptySketch("top");
    s.curves.push({ id: "a", kind: "arc", centre: [0, 0], start: [10, 0], end: [9.9, 1.4] });
    s.constraints.push({ id: "c", kind: "coincident", of: ["a.centre", "origin"] });
    s.constraints.push({ id: "s", kind: "point-on-curve", of: ["a.start", "x-axis"] });
    s.dimensions.push({ id: "r", kind: "radius", of: ["a"], value: 10 });
    const below = {
      do: "dimension",
      kind: "vertical-distance",
      of: ["origin", "a.end"],
      value: 6,
    } satisfies SketchCommand;
    const first = applyToSketch(s, below, "mm");
    expect(first.ok).toBe(true);
    const wide = {
      ...s,
      dimensions: [...s.dimensions, { id: "l", kind: "arc-length" as const, of: ["a"], value: 55 }],
    };
    const r = solve(wide);
    if (r.solved) return expect(r.conflict).toEqual([]);
    expect([r.conflict, r.elsewhere !== undefined]).toEqual([[], true]);
    const command = { do: "dimension", kind: "arc-length", of: ["a"], value: 55 } satisfies SketchCommand;
    const refused = applyToSketch(s, command, "mm");
    expect(!refused.ok && refused.refusal.code).toBe("not-from-here");
    const redrawn = applyToSketch(s, command, "mm", true);
    expect(redrawn.ok && solve(redrawn.value).solved).toBe(true);
  });
  it("two lines square to the axis, exact images running the same way, are symmetric", () => {
    const s = emptySketch("top");
    s.curves.push(line("l1", [10, 5], [30, 5]), line("l2", [-30, 5], [-10, 5]));
    s.constraints.push({ id: "k", kind: "symmetric", of: ["l1", "l2", "y-axis"] });
    const d = solve(s);
    expect(d.solved).toBe(true);
    expect(d.sketch.curves).toEqual(s.curves);
  });
});

describe("dragging", () => {
  const path = fc.array(
    fc.tuple(fc.double({ min: -80, max: 80, noNaN: true }), fc.double({ min: -80, max: 80, noNaN: true })),
    {
      minLength: 1,
      maxLength: 12,
    },
  );
  /** Leads a point along a path and back where it was, in small steps as a hand does. */
  const thereAndBack = (s: Sketch, ref: string, way: readonly (readonly [number, number])[]): Sketch => {
    const start = pointAt(s, ref);
    const drag = Drag.begin(s, "mm", { ref, at: start })!;
    const stops = [start, ...way.map(([x, y]) => [start[0] + x, start[1] + y] as const)];
    const all = [...stops, ...stops.slice(0, -1).reverse()];
    let at = s;
    all.slice(1).forEach((to, i) => {
      const from = all[i]!;
      for (let k = 1; k <= 6; k++)
        at = drag.to([from[0] + ((to[0] - from[0]) * k) / 6, from[1] + ((to[1] - from[1]) * k) / 6]);
    });
    return at;
  };
  it("is undone by dragging back: nothing fixed elsewhere is turned over for good", () => {
    const s = solve(ladder(50, 0, 1, 20)).sketch;
    const size = sizeOf(s);
    fc.assert(
      fc.property(path, (way) => {
        const back = thereAndBack(s, "r40s1.end", way);
        back.curves.forEach((c, i) => {
          const want = curveKind(s.curves[i]!).numbers(s.curves[i]!);
          curveKind(c)
            .numbers(c)
            .forEach((v, n) => expect(Math.abs(v - want[n]!), c.id).toBeLessThan(1e-5 * size));
        });
      }),
      { numRuns: IS_LONG ? 200 : 25, seed: 3 },
    );
  });
});
