import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf } from "@/core/kernel/properties";
import { openNodeKernel } from "@/worker/kernel";
import { readPart } from "./document";
import { rebuild } from "./rebuild";
import { SOLIDS } from "./testing/solids";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const RELATIVE = 1e-7;
const near = (what: string, got: number, want: number, size = Math.abs(want)) =>
  expect(Math.abs(got - want), `${what}: ${got}, not ${want}`).toBeLessThanOrEqual(RELATIVE * Math.max(size, 1e-9));

describe("parts known by closed formulas", () => {
  it("are many", () => expect(SOLIDS.length).toBeGreaterThanOrEqual(40));
  it.each(SOLIDS.flatMap((s) => s.ways.map((way, i) => [`${s.name}, way ${i + 1}`, s, way] as const)))(
    "%s",
    (_, known, way) => {
      const document = readPart(JSON.stringify(way));
      expect(document.ok || document.refusal).toBe(true);
      if (!document.ok) return;
      const built = rebuild(kernel, document.value);
      expect(built.steps.filter((s) => s.refusal || s.lost)).toEqual([]);
      const p = propertiesOf(kernel, built.body!);
      expect([p.bodies, p.valid, p.closed]).toEqual([known.bodies ?? 1, true, true]);
      expect(built.body!.names.filter((n) => !n.length)).toEqual([]);
      near("volume", p.volume, known.volume);
      if (known.area !== undefined) near("area", p.area, known.area);
      const size = Math.hypot(...[0, 1, 2].map((i) => p.box.max[i]! - p.box.min[i]!));
      known.centre?.forEach((c, i) => near(`centre ${"xyz"[i]}`, p.centre[i]!, c, size));
      kernel.release(built.body!.shape);
    },
  );
});
