import fc from "fast-check";
import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, it, vi } from "vitest";
import { curveKind } from "./curves/registry";
import { findRegions } from "./regions";
import { KINDS } from "./constraints/registry";
import {
  CONSTRAINT_KINDS,
  DIMENSION_KINDS,
  fits as isFit,
  SketchSchema,
  typeOf,
  type EntityType,
  type Relation,
  type Sketch,
} from "./sketch";
import { solveSketch } from "./solve";
import { IS_LONG } from "@/core/part/testing/chosen";

const runs = IS_LONG ? 5000 : 250;
vi.setConfig({ testTimeout: 600_000 });
const coordinate = fc.oneof(fc.integer({ min: -60, max: 60 }), fc.double({ min: -1e3, max: 1e3, noNaN: true }));
const point = fc.tuple(coordinate, coordinate);
const ids = ["l1", "l2", "l3", "c1", "c2", "a1", "e1", "s1", "p1"];
const ref = fc.constantFrom(
  "origin",
  "x-axis",
  "y-axis",
  ...ids,
  ...ids.flatMap((i) => [`${i}.start`, `${i}.end`, `${i}.centre`, `${i}.major`, `${i}.p1`]),
);
/** References that mean something of a type. */
const BY_TYPE: Record<EntityType, string[]> = {
  point: [
    "origin",
    "p1",
    "l1.start",
    "l1.end",
    "l2.start",
    "l2.end",
    "l3.start",
    "c1.centre",
    "c2.centre",
    "a1.start",
    "a1.end",
    "e1.centre",
    "e1.major",
    "s1.start",
    "s1.p1",
    "s1.end",
  ],
  line: ["x-axis", "y-axis", "l1", "l2", "l3"],
  circle: ["c1", "c2", "a1"],
  arc: ["a1"],
  ellipse: ["e1"],
  spline: ["s1"],
};
/** A relation whose arguments mostly fit. */
const related = <K extends keyof typeof KINDS>(kinds: readonly K[]) =>
  fc.constantFrom(...kinds).chain((kind) =>
    fc.record({
      kind: fc.constant(kind),
      of: fc.oneof(
        {
          weight: 12,
          arbitrary: fc
            .constantFrom(...KINDS[kind].takes)
            .chain((t) => fc.tuple(...t.map((type) => fc.constantFrom(...BY_TYPE[type])))),
        },
        { weight: 1, arbitrary: fc.array(ref, { minLength: 1, maxLength: 4 }) },
      ),
    }),
  );
const anySketch: fc.Arbitrary<Sketch> = fc.record({
  plane: fc.constant({ base: "top" as const }),
  curves: fc
    .tuple(
      point,
      point,
      point,
      point,
      point,
      point,
      point,
      point,
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 30 }),
    )
    .map(([a, b, c, d, e, f, g, h, r, s]) => [
      { id: "l1", kind: "line" as const, start: a, end: b },
      { id: "l2", kind: "line" as const, start: c, end: d },
      { id: "l3", kind: "line" as const, start: e, end: f },
      { id: "c1", kind: "circle" as const, centre: g, radius: r },
      { id: "c2", kind: "circle" as const, centre: h, radius: s },
      {
        id: "a1",
        kind: "arc" as const,
        centre: a,
        start: [a[0] + r, a[1]] as [number, number],
        end: [a[0], a[1] + r + 1] as [number, number],
      },
      {
        id: "e1",
        kind: "ellipse" as const,
        centre: b,
        major: [b[0] + s, b[1]] as [number, number],
        minor: [b[0], b[1] + r] as [number, number],
      },
      {
        id: "s1",
        kind: "spline" as const,
        through: [c, [c[0] + r, c[1] + s], [c[0] + 2 * r, c[1]]] as [number, number][],
        startHandle: d,
      },
      { id: "p1", kind: "point" as const, at: e },
    ]),
  constraints: fc
    .array(related(CONSTRAINT_KINDS), { maxLength: 7 })
    .map((l) => l.map((c, i) => ({ id: `k${i}`, ...c }))),
  dimensions: fc
    .array(
      fc.tuple(
        related(DIMENSION_KINDS),
        fc.oneof(
          { weight: 8, arbitrary: fc.integer({ min: 1, max: 90 }) },
          {
            weight: 1,
            arbitrary: fc.constantFrom<string | number>(
              "12 mm",
              "1/0",
              "2 5/8 in",
              "",
              "=(4",
              "1e9",
              -3,
              "=m1+2",
              "=m0*m2",
            ),
          },
        ),
      ),
      { maxLength: 5 },
    )
    .map((l) => l.map(([d, value], i) => ({ id: `m${i}`, ...d, value }))),
});

/** The same with relations that do not fit their arguments taken out: these reach the solver. */
const sketch = anySketch.map((s): Sketch => {
  const fits = (r: Relation) =>
    (r.of[0] !== r.of[1] || r.of.length === 1) &&
    KINDS[r.kind].takes.some((t) => t.length === r.of.length && t.every((want, i) => isFit(want, typeOf(s, r.of[i]!))));
  return {
    ...s,
    constraints: s.constraints.filter(fits),
    dimensions: s.dimensions.filter(fits).filter((d) => typeof d.value === "number" && d.value > 0),
  };
});

/** A real file with numbers, words and references exchanged, doubled or taken out. */
const folder = fileURLToPath(new URL("./testing/table/", import.meta.url));
const real = readdirSync(folder).map(
  (f) => (JSON.parse(readFileSync(folder + f, "utf8")) as { sketch: unknown }).sketch,
);
const junk = fc.oneof(
  fc.double(),
  fc.constantFrom(0, -1, 1e-9, 1e6, "", "l1", "origin", "x-axis", "=m1", "12 mm", null, true),
  fc.constantFrom(...CONSTRAINT_KINDS, ...DIMENSION_KINDS),
);
const mutated = fc
  .tuple(
    fc.nat(real.length - 1),
    fc.array(
      fc.tuple(fc.double({ min: 0, max: 0.999, noNaN: true }), fc.constantFrom("swap", "put", "double", "drop"), junk),
      { minLength: 1, maxLength: 6 },
    ),
  )
  .map(([k, edits]) => {
    const doc = structuredClone(real[k]) as Record<string, unknown>;
    for (const [share, how, value] of edits) {
      const places: [Record<string, unknown>, string][] = [];
      const walk = (o: unknown) => {
        if (o && typeof o === "object")
          for (const key of Object.keys(o)) {
            places.push([o as Record<string, unknown>, key]);
            walk((o as Record<string, unknown>)[key]);
          }
      };
      walk(doc);
      if (!places.length) break;
      const [at, key] = places[Math.floor(share * places.length)]!,
        [from, other] = places[Math.floor(((share * 7919) % 1) * places.length)]!;
      if (how === "put") at[key] = value;
      else if (how === "swap") at[key] = structuredClone(from[other]);
      else if (how === "drop") delete at[key];
      else if (Array.isArray(at)) at.push(structuredClone(at[Number(key)]));
    }
    return doc;
  });
/** Most processor time any input may take, ms: a guard against hanging, far above what a figure would be. */
const LIMIT = 2000;

describe("anything thrown at the solver", () => {
  it("mutated real files end in a result or a refusal, in time and without a number that is none", () => {
    let read = 0;
    fc.assert(
      fc.property(mutated, (doc) => {
        const s = SketchSchema.safeParse(doc);
        if (!s.success) return;
        read++;
        const start = process.cpuUsage(),
          r = solveSketch(s.data, "mm");
        expect(process.cpuUsage(start).user / 1000).toBeLessThan(LIMIT);
        if (!r.ok) return void expect(r.refusal.sentence).toMatch(/\.$/);
        expect(SketchSchema.safeParse(r.value.sketch).success || !r.value.solved).toBe(true);
        for (const c of r.value.sketch.curves)
          for (const v of curveKind(c).numbers(c)) expect(Number.isFinite(v)).toBe(true);
        findRegions(r.value.sketch);
      }),
      { numRuns: 2 * runs, seed: 14 },
    );
    expect(read).toBeGreaterThan(runs / 4);
  });

  it("ends in a result or a plain refusal, never in a number that is none", () => {
    let solved = 0,
      tied = 0;
    fc.assert(
      fc.property(fc.oneof(sketch, anySketch), (s) => {
        const r = solveSketch(s, "mm");
        if (!r.ok) {
          expect(r.refusal.sentence).toMatch(/\.$/);
          return;
        }
        if (r.value.solved) solved++;
        if (s.constraints.length + s.dimensions.length > 2) tied++;
        // what disagrees is always named, unless it is only the drawing that is in the way
        else if (!r.value.solved && s.dimensions.length && !r.value.elsewhere)
          expect(r.value.conflict.length).toBeGreaterThan(0);
        for (const c of r.value.sketch.curves)
          for (const v of curveKind(c).numbers(c)) expect(Number.isFinite(v)).toBe(true);
        for (const g of findRegions(r.value.sketch).regions) expect(g.area).toBeGreaterThan(-1e-6);
      }),
      { numRuns: runs, seed: 11 },
    );
    // most draws must not be refusals, or nothing was tried
    expect(solved).toBeGreaterThan(runs / 5);
    expect(tied).toBeGreaterThan(runs / 20);
  });

  it("any JSON is read or refused", () => {
    fc.assert(
      fc.property(fc.json(), (text) => {
        const r = SketchSchema.safeParse(JSON.parse(text));
        expect(typeof r.success).toBe("boolean");
      }),
      { numRuns: runs, seed: 12 },
    );
  });

  it("a valid set, disturbed, keeps its freedoms when turned into another order of curves", () => {
    fc.assert(
      fc.property(sketch, (s) => {
        const a = solveSketch(s, "mm"),
          b = solveSketch({ ...s, curves: [...s.curves].reverse() }, "mm");
        expect(a.ok).toBe(b.ok);
        if (a.ok && b.ok && a.value.solved && b.value.solved) expect(a.value.freedoms).toBe(b.value.freedoms);
      }),
      { numRuns: Math.ceil(runs / 5), seed: 13 },
    );
  });
});
