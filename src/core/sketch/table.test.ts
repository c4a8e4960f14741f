import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";
import { curveKind } from "./curves/registry";
import { pointAt, SketchSchema } from "./sketch";
import { solveSketch } from "./solve";

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

  it.each(files)("%s", (file) => {
    const c = JSON.parse(readFileSync(folder + file, "utf8")) as Case;
    const sketch = SketchSchema.parse(c.sketch);
    const r = solveSketch(sketch, c.units);
    if (!r.ok) throw new Error(r.refusal.sentence);
    const d = r.value, want = c.expect;
    if (want.conflicting) {
      expect(d.solved).toBe(false);
      expect(d.conflict).toEqual(expect.arrayContaining([...want.conflicting]));
      // a smallest set: without any one of it the rest can be solved
      for (const id of d.conflict) {
        const some = { ...sketch, constraints: sketch.constraints.filter((k) => d.conflict.includes(k.id) && k.id !== id), dimensions: sketch.dimensions.filter((k) => d.conflict.includes(k.id) && k.id !== id) };
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
    expect({ freedoms: d.freedoms, loose: [...d.loose].sort(), redundant: [...d.agreeing, ...d.surplus].sort() }).toEqual({ freedoms: want.freedoms, loose: [...(want.loose ?? [])].sort(), redundant: [...(want.redundant ?? [])].sort() });
  });
});
