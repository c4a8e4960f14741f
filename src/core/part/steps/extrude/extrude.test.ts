import { beforeAll, describe, expect, it } from "vitest";
import { measurePart } from "@/core/check/given/measured";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { rebuild } from "../../rebuild";
import { SOLIDS } from "../../testing/solids";
import { circ, extrude, line, part, sketch } from "../../testing/build";
import type { Step } from "../kinds";
import { extrudeKind, type ExtrudeStep } from "./schema";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

/** A 40 × 30 plate with two holes of radius 4, not yet extruded. */
function plate(): Draft {
  const d = new Draft("plate", "mm", STEEL).sketch("top");
  d.rectangle([0, 0], [40, 30]);
  d.circle([10, 15], 4);
  d.circle([30, 15], 4);
  return d;
}
const HOLE = Math.PI * 16;
const PLATE = 1200 - 2 * HOLE;
const measured = (d: PartDocument) => {
  const m = measurePart(kernel, d);
  return {
    ...m,
    volume: m.properties?.volume ?? 0,
    trouble: m.built.steps.filter((s) => s.refusal).map((s) => s.refusal!.code),
  };
};
/** The document with its last step changed. */
function last(d: Draft, change: Partial<ExtrudeStep>): PartDocument {
  const { steps } = d.document;
  return {
    ...d.document,
    steps: steps.map((s, i) => (i === steps.length - 1 ? ({ ...s, ...change } as ExtrudeStep) : s)),
  };
}

const INSIDE = { base: "top", offset: 20 } as const;

describe("extents", () => {
  it.each<[string, Partial<ExtrudeStep>, [number, number]]>([
    ["to depth, along the normal", { extent: { kind: "depth", depth: 6 } }, [0, 6]],
    ["turned round", { extent: { kind: "depth", depth: 6 }, reverse: true }, [-6, 0]],
    ["both ways, the whole depth", { extent: { kind: "both", depth: 6 } }, [-3, 3]],
    ["in another unit", { extent: { kind: "depth", depth: "1/4 in" } }, [0, 6.35]],
  ])("%s", (_, change, [low, high]) => {
    const { properties, volume } = measured(last(plate().extrude("add", { kind: "depth", depth: 1 }), change));
    expect(volume).toBeCloseTo(PLATE * (high - low), 6);
    expect(properties!.box.min[2]).toBeCloseTo(low, 6);
    expect(properties!.box.max[2]).toBeCloseTo(high, 6);
  });

  it("through goes all the way from a sketch in the middle of the part", () => {
    const d = plate().extrude("add", { kind: "both", depth: 10 });
    d.sketch("top").circle([20, 15], 3);
    expect(measured(d.extrude("cut", { kind: "through" }).document).volume).toBeCloseTo((PLATE - Math.PI * 9) * 10, 6);
  });

  it("a cut to depth leaves the rest", () => {
    const d = plate().extrude("add", { kind: "depth", depth: 10 });
    d.sketch("top", 10).circle([20, 15], 3);
    expect(measured(d.extrude("cut", { kind: "depth", depth: 4 }, { reverse: true }).document).volume).toBeCloseTo(
      PLATE * 10 - Math.PI * 9 * 4,
      6,
    );
  });
});

describe("regions", () => {
  it("those named are taken, holes and all", () => {
    const d = plate().extrude("add", { kind: "depth", depth: 5 });
    const only = measured(last(d, { regions: ["c1"] }));
    expect(only.volume).toBeCloseTo(HOLE * 5, 6);
    const both = measured(last(d, { regions: ["c1", "c2"] }));
    expect(both.volume).toBeCloseTo(2 * HOLE * 5, 6);
    expect(both.properties!.bodies).toBe(2);
    const filled = measured(last(d, { regions: ["l1+l2+l3+l4", "c1"] }));
    expect(filled.volume).toBeCloseTo((PLATE + HOLE) * 5, 6);
    expect(filled.properties!.bodies).toBe(1);
  });
});

describe("what cannot be", () => {
  it.each<[string, Partial<ExtrudeStep>, string]>([
    ["no depth", { extent: { kind: "depth", depth: 0 } }, "bad-number"],
    ["a negative depth", { extent: { kind: "depth", depth: -4 } }, "bad-number"],
    ["a depth that is an angle", { extent: { kind: "depth", depth: "30 deg" } }, "bad-number"],
    ["adding through", { extent: { kind: "through" } }, "through-adds"],
    ["cutting before there is material", { operation: "cut", extent: { kind: "depth", depth: 4 } }, "nothing-to-cut"],
    ["a region that is gone", { regions: ["l9"] }, "lost-region"],
    ["a sketch that is gone", { sketch: "sketch7" }, "no-sketch"],
  ])("%s is refused by name", (_, change, code) => {
    expect(measured(last(plate().extrude("add", { kind: "depth", depth: 5 }), change)).trouble).toEqual([code]);
  });
  const disc = sketch("s", "top", circ(0, 0, 5));
  it.each<[string, Step, RegExp]>([
    ["a disc leaning past its tip", extrude("b", "s", 20, { draft: 45 }), /cannot lean/],
    ["a wall thicker than the disc", extrude("b", "s", 9, { thin: { thickness: 6, side: "inside" } }), /thinner/],
    ["half a wall thicker than it", extrude("b", "s", 9, { thin: { thickness: 10, side: "middle" } }), /thinner/],
  ])("%s is refused, not turned inside out", (_, step, sentence) => {
    const built = rebuild(kernel, part(disc, step));
    expect(built.steps[1]!.refusal?.sentence).toMatch(sentence);
    expect(built.body).toBeUndefined();
  });
  it("a region whose line moves past the middle is still the one that was meant", () => {
    const halved = (x: number) =>
      part(
        sketch("s", "top", circ(0, 0, 10), [line("l1", [x, -12], [x, 12])]),
        extrude("b", "s", 5, { regions: ["c1+l1#lr"] }),
      );
    const areas = [-4, -1, 1, 4].map((x) => measurePart(kernel, halved(x)).properties!.volume / 5);
    for (const [i, a] of areas.entries()) if (i) expect(a).toBeLessThan(areas[i - 1]!);
    const vague = { ...halved(1).steps[1], regions: ["c1+l1"] } as Step;
    expect(rebuild(kernel, part(halved(1).steps[0]!, vague)).steps[1]!.refusal?.sentence).toMatch(
      /which piece was meant/,
    );
  });
  it.each([
    ["post up to a slope", 0, (s: Step) => (s.id === "e" ? { ...s, reverse: true } : s), "behind"],
    [
      "post up to a ball",
      2,
      (s: Step) => (s.kind === "sketch" && s.id === "t" ? { ...s, sketch: { ...s.sketch, plane: INSIDE } } : s),
      "meets-at-once",
    ],
  ] as const)("%s, which nothing stops: refused, and the part stays", (name, way, change, code) => {
    const known = SOLIDS.find((s) => s.name === name)!.ways[way]!;
    const built = rebuild(kernel, { ...known, steps: known.steps.map(change) as PartDocument["steps"] });
    expect(built.steps.map((s) => s.refusal?.code)).toEqual([undefined, undefined, undefined, code]);
    expect(built.body).toBeDefined();
  });
  it("a cut that takes everything is refused and the part stays", () => {
    const d = plate().extrude("add", { kind: "depth", depth: 5 });
    d.sketch("top").rectangle([-10, -10], [60, 60]);
    const m = measured(d.extrude("cut", { kind: "through" }).document);
    expect(m.trouble).toEqual(["nothing-left"]);
    expect(m.volume).toBeCloseTo(PLATE * 5, 6);
  });
});

describe("how it reads", () => {
  const step: ExtrudeStep = { id: "e", kind: "extrude", sketch: "s", operation: "cut", extent: { kind: "through" } };
  it("says operation, extent and figure", () => {
    expect(extrudeKind.read(step, "mm").detail).toBe("Cut material · through");
    expect(extrudeKind.read({ ...step, operation: "add", extent: { kind: "both", depth: "=3*4" } }, "mm").detail).toBe(
      "Add material · both ways · 12 mm",
    );
    expect(extrudeKind.read({ ...step, extent: { kind: "depth", depth: "5/8" } }, "in").detail).toBe(
      "Cut material · to depth · 0.625 in",
    );
  });
});
