import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf } from "@/core/kernel/properties";
import { openNodeKernel } from "@/worker/kernel";
import { readPart } from "./document";
import { rebuild } from "./rebuild";
import { SOLIDS } from "./testing/solids";
import { FREE, prismOver } from "./testing/solids/free";
import { TOUCHING } from "./testing/solids/reaching";
import { WALLS } from "./testing/solids/walls";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const RELATIVE = 1e-9;
const near = (what: string, got: number, want: number, size = Math.abs(want)) =>
  expect(Math.abs(got - want), `${what}: ${got}, not ${want}`).toBeLessThanOrEqual(RELATIVE * Math.max(size, 1e-9));

describe("parts known by closed formulas", () => {
  it.each(
    [...SOLIDS, ...WALLS, ...FREE, ...TOUCHING].flatMap((s) =>
      s.ways.map((way, i) => [`${s.name}, way ${i + 1}`, s, way] as const),
    ),
  )("%s", (_, known, way) => {
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
    known.moments?.forEach((m, i) => near(`moment ${"xyz"[i]}`, p.tensor[i]![i]!, m));
    kernel.release(built.body!.shape);
  });
});

describe("prisms over any closed spline", () => {
  it("have the volume, area, centre and moments that the outline says", () => {
    const spoke = fc.double({ min: 10, max: 25, noNaN: true });
    const outline = fc
      .record({
        spokes: fc.array(spoke, { minLength: 3, maxLength: 9 }),
        depth: fc.double({ min: 1, max: 40, noNaN: true }),
      })
      .map(({ spokes, depth }) => {
        const through = spokes.map((far, i): [number, number] => {
          const turn = (2 * Math.PI * i) / spokes.length;
          return [far * Math.cos(turn), far * Math.sin(turn)];
        });
        return prismOver("star", [{ id: "p", kind: "spline", through: [...through, through[0]!] }], depth);
      });
    fc.assert(
      fc.property(outline, (known) => {
        const built = rebuild(kernel, known.ways[0]!),
          p = propertiesOf(kernel, built.body!);
        near("volume", p.volume, known.volume);
        near("area", p.area, known.area!);
        known.centre!.forEach((c, i) => near("centre", p.centre[i]!, c, 50));
        known.moments!.forEach((m, i) => near("moment", p.tensor[i]![i]!, m));
        kernel.release(built.body!.shape);
      }),
      { numRuns: 25 },
    );
  });
});
