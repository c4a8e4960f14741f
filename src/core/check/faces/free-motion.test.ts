import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { arc, extrude, line, part, sketch } from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "../check";
import { newExercise } from "../exercise/exercise";
import { studentSentence } from "@/core/grade/sentences";
import type { SketchesEvidence } from "../kinds/sketches/kind";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** A plate 40 × 30 × 8 with one corner rounded by R6; sizes that are named are left out. */
function plate(without: readonly string[] = [], anchor: "origin" | "fixed" = "origin"): PartDocument {
  const outline = sketch("s", "top", [
    line("l1", [0, 0], [40, 0]),
    line("l2", [40, 0], [40, 24]),
    arc("a1", [34, 24], [40, 24], [34, 30]),
    line("l3", [34, 30], [0, 30]),
    line("l4", [0, 30], [0, 0]),
  ]);
  if (outline.kind !== "sketch") throw new Error("no sketch");
  const tie = (kind: string, ...of: string[]) => ({ id: `${kind}${of.join("")}`, kind, of });
  const constraints = [
    tie("coincident", "l1.end", "l2.start"),
    tie("coincident", "l2.end", "a1.start"),
    tie("coincident", "a1.end", "l3.start"),
    tie("coincident", "l3.end", "l4.start"),
    tie("coincident", "l4.end", "l1.start"),
    tie("horizontal", "l1"),
    tie("horizontal", "l3"),
    tie("vertical", "l2"),
    tie("vertical", "l4"),
    tie("tangent", "l2", "a1"),
    tie("tangent", "l3", "a1"),
    anchor === "origin" ? tie("coincident", "l1.start", "origin") : tie("fixed", "l1.start"),
  ];
  const sizes = [
    { id: "width", kind: "length", of: ["l1"], value: 40 },
    { id: "height", kind: "length", of: ["l4"], value: 30 },
    { id: "round", kind: "radius", of: ["a1"], value: 6 },
  ].filter((d) => !without.includes(d.id));
  const step = { ...outline, sketch: { ...outline.sketch, constraints, dimensions: sizes } };
  return part(step as never, extrude("b", "s", 8));
}

const told = (submitted: PartDocument, free: boolean) => {
  const exercise = {
    ...newExercise(),
    reference: plate(),
    sizes: [],
    ...(free && { free: { steps: [], faces: ["b/side/a1"] } }),
  };
  const r = checkSubmission(kernel, exercise, submitted);
  if (!r.ok) throw new Error(r.refusal.sentence);
  const e = r.value.report.evidence.find((x) => x.check === "sketches") as SketchesEvidence;
  return { verdict: e.verdict, off: e.off, sentence: studentSentence(e, exercise) };
};

describe("a freedom that only moves what is left free costs nothing", () => {
  it("a loose radius of a free rounding", () => {
    const r = told(plate(["round"]), true);
    expect([r.verdict, r.off]).toEqual(["met", 0]);
    expect(r.sentence).toMatch(/only moves what is left free/);
  });
  it("the same where nothing is free", () =>
    expect(told(plate(["round"]), false)).toMatchObject({ verdict: "missed", off: 1 }));
  it("another freedom beside it", () => {
    const r = told(plate(["round", "width"]), true);
    expect([r.verdict, r.off]).toEqual(["missed", 1]);
    expect(r.sentence).toMatch(/can still move in 1 way /);
  });
});

it("a sketch that is fixed where it was drawn is told", () => {
  expect(told(plate([], "fixed"), false).sentence).toMatch(/is fixed where it was drawn, and not held by the origin/);
  expect(told(plate(), false).sentence).not.toMatch(/held by the origin/);
});
