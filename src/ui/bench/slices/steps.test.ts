import { describe, expect, it } from "vitest";
import { circ, extrude, face, hole, part, rect, sketch } from "@/core/part/testing/build";
import { atWork, shownDocument } from "./steps";
import { freshStep } from "../steps/fresh";
import { readPath, withValue } from "@/core/naming/field";

const base = part(
  sketch("sketch1", "top", rect(0, 0, 40, 20)),
  extrude("extrude1", "sketch1", 10),
  hole("hole1", face("extrude1/end"), 6, [[10, 10]]),
);
const opened = { opening: 1, past: [], future: [] };
const draft = extrude("extrude2", "sketch1", 4);
const ids = (d: { steps: readonly { id: string }[] }) => d.steps.map((s) => s.id);

describe("the document as it is shown", () => {
  it("is the document while nothing is at work", () =>
    expect(shownDocument(base, { kind: "solid" }, undefined)).toBe(base));
  it("holds the step being made where it will stand", () => {
    expect(ids(shownDocument(base, { kind: "step", draft, fresh: true, at: 3, ...opened }, undefined))).toEqual([
      "sketch1",
      "extrude1",
      "hole1",
      "extrude2",
    ]);
    expect(ids(shownDocument(base, { kind: "step", draft, fresh: true, at: 2, ...opened }, 2))).toEqual([
      "sketch1",
      "extrude1",
      "extrude2",
    ]);
  });
  it("holds a changed step in the place of the stored one", () => {
    const shown = shownDocument(
      base,
      { kind: "step", draft: extrude("extrude1", "sketch1", 99), fresh: false, at: 1, ...opened },
      undefined,
    );
    expect(shown.steps[1]).toMatchObject({ extent: { depth: 99 } });
  });
  it("ends where it is built up to", () => expect(ids(shownDocument(base, { kind: "solid" }, 1))).toEqual(["sketch1"]));
  it("what may be picked stands before what is at work", () => {
    expect(atWork(base, { kind: "step", draft, fresh: false, at: 1, ...opened })).toEqual({ before: 1 });
    expect(atWork(base, { kind: "sketch", step: "sketch1" })).toMatchObject({
      before: 0,
      frame: { origin: [0, 0, 0] },
    });
    expect(atWork(base, { kind: "solid" })).toBeUndefined();
  });
});

describe("a new step", () => {
  it.each([
    ["extrude", /no sketch to extrude/],
    ["revolve", /no sketch to revolve/],
    ["fillet", /no material yet/],
    ["pattern", /no material yet/],
  ] as const)("%s needs something to stand on", (kind, sentence) => {
    const r = freshStep(kind, `${kind}1`, [], "mm", {});
    expect(r.ok ? "made" : r.refusal.sentence).toMatch(sentence);
  });
  it("takes the sketch that nothing uses yet", () => {
    const r = freshStep("extrude", "extrude2", [...base.steps, sketch("sketch2", "front", circ(0, 0, 3))], "mm", {});
    expect(r.ok && r.value).toMatchObject({
      sketch: "sketch2",
      operation: "add",
      extent: { kind: "depth", depth: "10" },
    });
  });
  it("cuts go through, inches are whole fractions, a pattern repeats the last feature", () => {
    const cutting = freshStep("extrude", "x", base.steps, "in", { operation: "cut" } as never),
      pattern = freshStep("pattern", "p", base.steps, "in", {});
    expect(cutting.ok && cutting.value).toMatchObject({ operation: "cut", extent: { kind: "through" } });
    expect(pattern.ok && pattern.value).toMatchObject({ of: { steps: ["hole1"] }, way: { first: { distance: "1" } } });
  });
});

it("a lost reference is replaced in its place, and nothing else", () => {
  const step = {
    id: "f",
    kind: "fillet",
    groups: [
      {
        radius: 2,
        edges: [
          { id: "e1", on: { edge: "a|b" } },
          { id: "e2", on: { edge: "c|d" } },
        ],
      },
    ],
  } as const;
  expect(withValue(step as never, readPath("groups.0.edges.1.on"), { edge: "x|y" })).toEqual({
    ...step,
    groups: [{ radius: 2, edges: [step.groups[0].edges[0], { id: "e2", on: { edge: "x|y" } }] }],
  });
});
