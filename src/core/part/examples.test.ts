import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { measurePart } from "@/core/check/given/measured";
import type { Kernel } from "@/core/kernel/opencascade";
import { openNodeKernel } from "@/worker/kernel";
import { readPart } from "./document";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

/** Volume common to two cylinders at right angles, radii a > b, by Simpson's rule over the smaller. */
function crossing(a: number, b: number): number {
  const f = (t: number) => 8 * Math.sqrt(a * a - (b * Math.sin(t)) ** 2) * (b * Math.cos(t)) ** 2;
  const n = 2000,
    h = Math.PI / 2 / n;
  let s = f(0) + f(Math.PI / 2);
  for (let i = 1; i < n; i++) s += (i % 2 ? 4 : 2) * f(i * h);
  return (s * h) / 3;
}

describe("the examples of docs/part-format.md", () => {
  it.each([
    ["gauge-plate", 80 * 50 * 12 - Math.PI * 100 * 12, 1e-9],
    ["post", (Math.PI * 0.25 * 2.5 - crossing(0.5, 3 / 16)) * 25.4 ** 3, 1e-7],
  ])("%s builds, is fully defined, and has the volume of the formula", (name, volume, tolerance) => {
    const url = new URL(`../../../docs/examples/${name}.json`, import.meta.url);
    const r = readPart(readFileSync(url, "utf8"));
    if (!r.ok) throw new Error(r.refusal.sentence);
    const m = measurePart(kernel, r.value);
    expect(m.built.steps.filter((s) => s.refusal)).toEqual([]);
    for (const s of m.built.sketches.values()) expect(s.diagnosis.freedoms).toBe(0);
    expect(Math.abs(m.properties!.volume / volume - 1)).toBeLessThan(tolerance);
  });

  it("stand in the text word for word", () => {
    const text = readFileSync(new URL("../../../docs/part-format.md", import.meta.url), "utf8");
    for (const name of ["gauge-plate", "post"])
      expect(text).toContain(
        readFileSync(new URL(`../../../docs/examples/${name}.json`, import.meta.url), "utf8").trim(),
      );
  });
});
