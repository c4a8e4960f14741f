import { beforeAll, describe, expect, it } from "vitest";
import { distanceTo, normalAt, type Carrier } from "@/core/kernel/carrier";
import type { Kernel } from "@/core/kernel/opencascade";
import { writeStep } from "@/core/kernel/exchange";
import { emptyPart, type PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { circ, edge, extrude, fillet, part, sketch } from "@/core/part/testing/build";
import { FREE } from "@/core/part/testing/solids/free";
import { openNodeKernel } from "@/worker/kernel";
import { sizeText } from "./size";
import { disturbed, proposedSizes, rankSizes } from "./sizes";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** What a drawing of a part would print, and how much of its shape that tells. */
function printed(document: PartDocument) {
  const r = disturbed(kernel, document);
  if (!r.ok) throw new Error(r.refusal.sentence);
  const { body, changes } = r.value;
  const sizes = proposedSizes(r.value),
    { told, ways, hidden, numbers } = rankSizes(body, changes, sizes, { unit: "mm" });
  const texts = sizes.map((s) => sizeText(s, body.on, { unit: "mm" })).sort();
  return { texts, told, ways, hidden: hidden.map((i) => numbers[i]!.label) };
}
const known = (name: string): PartDocument => FREE.find((solid) => solid.name === name)!.ways[0]!;

describe("what a drawing prints of ellipses", () => {
  it.each([
    ["elliptic prism", ["10", "ellipse 80 × 20"]],
    ["ellipse with a round bore", ["12", "ellipse 60 × 40", "⌀16"]],
    // nothing else tells where the bores of an oval lie and how: along its axes
    ["oval with two bores", ["12", "12", "2", "8", "ellipse 60 × 40", "⌀6", "⌀8"]],
    ["plate with an elliptic window", ["20°", "33", "45", "6", "60", "80", "ellipse 40 × 14"]],
    ["elliptic cup", ["25", "ellipse 60 × 40", "wall 2"]],
  ])("%s: everything", (name, texts) => {
    const found = printed(known(name));
    expect(found.texts).toEqual(texts);
    expect([found.told, found.hidden]).toEqual([found.ways, []]);
  });

  it("not without its axes, and not without where its bores lie", () => {
    const r = disturbed(kernel, known("oval with two bores"));
    if (!r.ok) throw new Error(r.refusal.sentence);
    const { body, changes } = r.value,
      sizes = proposedSizes(r.value);
    for (const gone of sizes.filter((s) => s.kind === "ellipse" || s.kind === "distance")) {
      const { told, ways } = rankSizes(
        body,
        changes,
        sizes.filter((s) => s !== gone),
        { unit: "mm" },
      );
      expect(ways - told).toBe(gone.kind === "ellipse" ? 2 : 1);
    }
  });
});

describe("of a body from a file", () => {
  const fromFile = (document: PartDocument): PartDocument => {
    const body = rebuild(kernel, document).body!,
      step = writeStep(kernel, body, "part");
    kernel.release(body.shape);
    return {
      ...emptyPart("part", "mm", document.material),
      steps: [{ id: "f", kind: "imported", file: "p.step", step }],
    };
  };
  it("ellipses are printed as of one that was built here", () => {
    const found = printed(fromFile(known("oval with two bores")));
    expect(found.texts).toEqual(["12", "12", "2", "8", "ellipse 60 × 40", "⌀6", "⌀8"]);
    expect([found.told, found.hidden]).toEqual([found.ways, []]);
  });
  it("a curved face that no number tells is missing", () => {
    const found = printed(fromFile(known("plate with a waved edge")));
    expect(found.hidden).toContain("shape of a curved face");
    expect(found.told).toBeLessThan(found.ways);
  });
});

describe("a free face counts by how its places move", () => {
  // a spline's points are in no size: each of them is missing, and named
  it.each([
    ["plate with a waved edge", 10],
    ["blade of two splines", 6],
    ["ring of an ellipse", 3],
    ["ring of a slanted ellipse", 4],
    ["turned from a spline", 7],
  ])("%s: %i ways", (name, ways) => {
    const found = printed(known(name));
    expect(found.ways).toBe(ways);
    expect(found.told).toBeLessThan(ways);
    expect(found.hidden.length).toBeGreaterThanOrEqual(ways - found.told);
  });
});

it("a rounding along an edge that is no circle is printed by its radius, and asked for where it is not", () => {
  const crossing = part(
    sketch("s", "top", circ(0, 0, 20, "tube")),
    extrude("b", "s", 60),
    sketch("t", "front", circ(0, 30, 8, "arm")),
    extrude("c", "t", 40),
    fillet("f", 3, edge("b/side/tube", "c/side/arm")),
  );
  const found = printed(crossing);
  expect(found.texts).toContain("R3");
  expect(found.told).toBe(found.ways);
  const r = disturbed(kernel, crossing);
  if (!r.ok) throw new Error(r.refusal.sentence);
  const { body, changes } = r.value,
    others = proposedSizes(r.value).filter((s) => s.kind !== "radius");
  const { told, ways, hidden, numbers } = rankSizes(body, changes, others, { unit: "mm" });
  expect([ways - told, hidden.map((i) => numbers[i]!.id)]).toEqual([1, ["f:groups.0.radius"]]);
});

it("distance from an ellipse, and the way out of it, against the definition", () => {
  const ellipse: Carrier = {
    kind: "elliptic",
    at: [1, 2, 3],
    axis: [0, 0, 1],
    long: [1, 0, 0],
    halves: [5, 2],
    hollow: false,
  };
  for (const turn of [0, 0.3, 1, Math.PI / 2, 2, 3, 4.5])
    for (const out of [-0.3, 0, 0.7, 20]) {
      const on = [5 * Math.cos(turn), 2 * Math.sin(turn)] as const,
        way = [Math.cos(turn) / 5, Math.sin(turn) / 2] as const,
        length = Math.hypot(...way);
      const p = [1 + on[0] + (out * way[0]) / length, 2 + on[1] + (out * way[1]) / length, 8] as const;
      expect(distanceTo(ellipse, [...p])).toBeCloseTo(Math.abs(out), 9);
      if (out === 0)
        expect(normalAt(ellipse, [...p])).toEqual(
          [way[0] / length, way[1] / length, 0].map((v) => expect.closeTo(v, 9)),
        );
    }
  // from the middle, and from the longer axis, the nearest place lies across
  expect(distanceTo(ellipse, [1, 2, 0])).toBeCloseTo(2, 12);
  expect(distanceTo(ellipse, [2, 2, 0])).toBeCloseTo(2 * Math.sqrt(1 - 1 / 21), 6);
});
