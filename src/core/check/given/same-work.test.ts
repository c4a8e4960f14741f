import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyPart, type PartDocument } from "@/core/part/document";
import type { Step } from "@/core/part/steps/kinds";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";
import { sameWork } from "./same-work";

/** One hand: where it puts numbers and loose things, a number from 0 to 1 for each time it is asked. */
const hand = (seed: number) => {
  let state = seed * 2_654_435_761 + 1;
  return () => (state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0) / 2 ** 32;
};

/** A plate 60 × 40 with a hole, as somebody draws it: the same shape by every hand. */
function plate(seed: number, isOrderOwn = seed % 2 === 0): PartDocument {
  const at = hand(seed);
  const d = new Draft("Plate", "mm", STEEL).sketch("top");
  const [bottom, right] = d.rectangle([at(), at()], [50 + at() * 20, 30 + at() * 20]) as [string, string];
  const hole = d.circle([18 + at() * 4, 18 + at() * 4], 6);
  const sizes: [() => unknown, () => unknown] = [
    () => d.dimension("length", [bottom], 60),
    () => d.dimension("length", [right], 40),
  ];
  if (isOrderOwn) sizes.reverse();
  d.constrain("coincident", `${bottom}.start`, "origin");
  for (const set of sizes) set();
  d.dimension("diameter", [hole], 12)
    .dimension("horizontal-distance", ["origin", `${hole}.centre`], 20)
    .dimension("vertical-distance", ["origin", `${hole}.centre`], 20);
  d.extrude("add", { kind: "depth", depth: 10 });
  return withNumbersPut(d.document, at);
}

/** Every dimension's number is put somewhere by hand. */
const withNumbersPut = (d: PartDocument, at: () => number): PartDocument => ({
  ...d,
  steps: d.steps.map((s): Step => {
    if (s.kind !== "sketch") return s;
    const dimensions = s.sketch.dimensions.map((m) => ({ ...m, at: [at() * 60, at() * 40] as [number, number] }));
    return { ...s, sketch: { ...s.sketch, dimensions } };
  }),
});
const changedSketch = (d: PartDocument, change: (s: Extract<Step, { kind: "sketch" }>) => Step): PartDocument => ({
  ...d,
  steps: d.steps.map((s) => (s.kind === "sketch" ? change(s) : s)),
});

describe("same work", () => {
  it("is never found among parts that are the same and were made by different hands", () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 100_000 }), { minLength: 2, maxLength: 12 }), (seeds) => {
        expect(sameWork(seeds.map((s) => plate(s)))).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });
  it("is found where a part was taken over, renamed, in another material and with a size changed", () => {
    const parts = [1, 2, 3, 4, 5].map((s) => plate(s));
    const copy = changedSketch(
      { ...parts[2]!, name: "My own plate", material: { name: "Brass", density: 8.4 } },
      (s) => ({
        ...s,
        name: "Outline",
        sketch: { ...s.sketch, dimensions: s.sketch.dimensions.map((m, i) => (i ? m : { ...m, value: 61 })) },
      }),
    );
    const [pair, ...others] = sameWork([...parts, copy]);
    expect(others).toEqual([]);
    expect([pair!.first, pair!.second]).toEqual([2, 5]);
    expect(pair!.shared).toBe(1);
    expect(pair!.likenesses[0]!.sentence).toMatch(/^5 of 5 places put by hand are the same to a thousandth: step 1/);
  });
  it("leaves out of account what a starter gave to all", () => {
    const starter = plate(77);
    const grown = (seed: number) => {
      const at = hand(seed);
      const own = plate(seed).steps[0]!;
      return { ...starter, steps: [...starter.steps, { ...own, id: "mine", name: `own ${at()}` } as Step] };
    };
    const parts = [1, 2, 3].map(grown);
    expect(sameWork(parts, starter)).toEqual([]);
    expect(sameWork([...parts, parts[0]!], starter)).toMatchObject([{ first: 0, second: 3 }]);
  });
  it("does not follow from what half a class does alike", () => {
    const named = (seed: number) => changedSketch(plate(seed), (s) => ({ ...s, name: "Base plate" }));
    expect(sameWork([1, 2, 3, 4].map(named))).toEqual([]);
  });
  it("is told by things that were made and taken away again", () => {
    const untidy = (seed: number) =>
      changedSketch(plate(seed), (s) => ({
        ...s,
        sketch: {
          ...s.sketch,
          constraints: s.sketch.constraints.map((k, i) => (i > 2 ? { ...k, id: `k${i + 5}` } : k)),
        },
      }));
    const pairs = sameWork([plate(1), plate(2), untidy(3), untidy(4)]);
    expect(pairs).toMatchObject([{ first: 2, second: 3 }]);
    expect(pairs[0]!.likenesses[0]!.sentence).toMatch(/were made and taken away again/);
  });
  it("has nothing to say of empty parts", () => {
    const empty = emptyPart("a", "mm", STEEL);
    expect(sameWork([empty, empty])).toEqual([]);
  });
});
