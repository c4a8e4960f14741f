import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";
import { curveKind } from "./curves/registry";
import { mappedCurve } from "./curves/registry";
import { pointAt, SketchSchema, type Sketch } from "./sketch";
import { quantityOf } from "./sketch";
import { measureDimension, solveSketch } from "./solve";
import { seeded } from "./testing/ladder";

/** One sketch with a known answer: exact coordinates by closed form or by construction. */
interface Case {
  readonly name: string;
  readonly units: "mm" | "in";
  readonly sketch: unknown;
  readonly expect: {
    readonly freedoms?: number;
    readonly loose?: readonly string[];
    readonly redundant?: readonly string[];
    /** Dimensions and constraints that must be among those named. */
    readonly conflicting?: readonly string[];
    readonly points?: Record<string, readonly [number, number]>;
    readonly radii?: Record<string, number>;
  };
}

const folder = fileURLToPath(new URL("./testing/table/", import.meta.url));
const files = readdirSync(folder).sort();

describe("the table of sketches with known answers", () => {
  it("has at least 60", () => expect(files.length).toBeGreaterThanOrEqual(60));

  const read = (file: string) => JSON.parse(readFileSync(folder + file, "utf8")) as Case;
  const sound = files.filter((f) => !read(f).expect.conflicting);
  const solve = (s: Sketch, units: "mm" | "in") => {
    const r = solveSketch(s, units);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value;
  };

  it("freedoms do not depend on the order of curves and relations", () => {
    for (const file of sound) {
      const c = read(file),
        s = SketchSchema.parse(c.sketch);
      const turned = {
        ...s,
        curves: [...s.curves].reverse(),
        constraints: [...s.constraints].reverse(),
        dimensions: [...s.dimensions].reverse(),
      };
      expect(solve(turned, c.units).freedoms, file).toBe(c.expect.freedoms);
    }
  });
  it("nor on scale", () => {
    for (const file of sound)
      for (const k of [1e-3, 40]) {
        const c = read(file),
          s = solve(SketchSchema.parse(c.sketch), c.units).sketch;
        // sizes are left to measure: what is driven is scaled with what is drawn
        const inside = (d: Sketch["dimensions"][number]): Sketch["dimensions"][number] => {
          const m = measureDimension(s, d);
          return { ...d, value: quantityOf(d) === "angle" ? `${m} rad` : `${m * k} mm` };
        };
        const scaled = {
          ...s,
          curves: s.curves.map((q) => mappedCurve(q, ([x, y]) => [x * k, y * k], k)),
          dimensions: s.dimensions.map(inside),
        };
        expect(solve(scaled, "mm").freedoms, `${file} × ${k}`).toBe(c.expect.freedoms);
      }
  });
  it("a solved sketch, disturbed by less than a tenth of its smallest feature, comes back to its shape", () => {
    // two that cannot move though their rank says so come back by a double root only
    const regular = sound.filter((f) => read(f).expect.freedoms === 0 && !/point-between|flat-triangle/.test(f));
    const rnd = seeded(7);
    for (const file of regular) {
      const c = read(file),
        s = solve(SketchSchema.parse(c.sketch), c.units).sketch;
      const least = Math.min(...s.curves.flatMap((q) => curveKind(q).sizes(q)), Infinity),
        size = Math.max(...s.curves.flatMap((q) => curveKind(q).numbers(q).map(Math.abs)));
      const off = 0.05 * Math.min(least, size),
        move = ([x, y]: readonly [number, number]): [number, number] => [
          x + (rnd() - 0.5) * off,
          y + (rnd() - 0.5) * off,
        ];
      const fixed = new Set(s.constraints.filter((k) => k.kind === "fixed").map((k) => k.of[0]!.split(".")[0]));
      const back = solve(
        { ...s, curves: s.curves.map((q) => (fixed.has(q.id) ? q : mappedCurve(q, move, 1 + 0.05 * (rnd() - 0.5)))) },
        c.units,
      );
      expect(back.solved, file).toBe(true);
      back.sketch.curves.forEach((q, i) =>
        curveKind(q)
          .numbers(q)
          .forEach((v, n) =>
            expect(Math.abs(v - curveKind(q).numbers(s.curves[i]!)[n]!), `${file} ${q.id}`).toBeLessThan(1e-7 * size),
          ),
      );
    }
  });

  it.each(files)("%s", (file) => {
    const c = JSON.parse(readFileSync(folder + file, "utf8")) as Case;
    const sketch = SketchSchema.parse(c.sketch);
    const r = solveSketch(sketch, c.units);
    if (!r.ok) throw new Error(r.refusal.sentence);
    const d = r.value,
      want = c.expect;
    if (want.conflicting) {
      expect(d.solved).toBe(false);
      expect(d.conflict).toEqual(expect.arrayContaining([...want.conflicting]));
      // a smallest set: without any one of it the rest can be solved
      for (const id of d.conflict) {
        const some = {
          ...sketch,
          constraints: sketch.constraints.filter((k) => d.conflict.includes(k.id) && k.id !== id),
          dimensions: sketch.dimensions.filter((k) => d.conflict.includes(k.id) && k.id !== id),
        };
        const less = solveSketch(some, c.units);
        expect(less.ok && less.value.solved).toBe(true);
      }
      return;
    }
    expect(d.solved).toBe(true);
    const size = Math.max(...d.sketch.curves.flatMap((k) => curveKind(k).numbers(k).map(Math.abs)));
    for (const [ref, [x, y]] of Object.entries(want.points ?? {})) {
      const p = pointAt(d.sketch, ref);
      expect(Math.hypot(p[0] - x, p[1] - y), ref).toBeLessThan(1e-9 * size);
    }
    for (const [id, radius] of Object.entries(want.radii ?? {})) {
      const k = d.sketch.curves.find((q) => q.id === id)!;
      expect(Math.abs(curveKind(k).numbers(k)[2]! - radius), id).toBeLessThan(1e-9 * size);
    }
    expect({
      freedoms: d.freedoms,
      loose: [...d.loose].sort(),
      redundant: [...d.agreeing, ...d.surplus].sort(),
    }).toEqual({
      freedoms: want.freedoms,
      loose: [...(want.loose ?? [])].sort(),
      redundant: [...(want.redundant ?? [])].sort(),
    });
  });
});
