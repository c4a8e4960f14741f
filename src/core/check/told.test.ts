import { beforeAll, describe, expect, it } from "vitest";
import { studentSentence } from "@/core/grade/sentences";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { cut, extrude, part, rect, sketch } from "@/core/part/testing/build";
import { SOLIDS } from "@/core/part/testing/solids";
import { box } from "@/core/part/testing/solids/known";
import { drivingNumbers, withSketchesDefined } from "@/core/sizes/numbers";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "./check";
import { newExercise } from "./exercise/exercise";
import type { Evidence } from "./kinds/kinds";
import { References } from "./references";

let kernel: Kernel;
let references: References;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 20);
});

const known = (name: string): PartDocument => withSketchesDefined(SOLIDS.find((s) => s.name === name)!.ways[0]!);
const given = (d: PartDocument, label: RegExp, value: number) =>
  drivingNumbers(d)
    .find((n) => label.test(n.label))!
    .give(value);
const steps = (d: PartDocument, change: (s: PartDocument["steps"][number]) => object): PartDocument => ({
  ...d,
  steps: d.steps.map(change) as PartDocument["steps"],
});

/** What a student reads of a part, by line. */
function told(reference: PartDocument, part: PartDocument) {
  const exercise = { ...newExercise(), reference };
  const r = checkSubmission(kernel, exercise, part, { references });
  if (!r.ok) throw new Error(r.refusal.sentence);
  const of = (check: Evidence["check"]) => r.value.report.evidence.find((e) => e.check === check)!;
  const sentence = (check: Evidence["check"]) => studentSentence(of(check), exercise);
  return { shape: sentence("shape"), sizes: sentence("sizes"), verdict: (c: Evidence["check"]) => of(c).verdict };
}

/** A block 60 × 40 × 20 with a pocket 30 × 20, so deep. */
const pocketed = (deep: number): PartDocument =>
  part(
    ...box(60, 40, 20),
    sketch("p", { base: "top", offset: 20 }, rect(10, 10, 40, 30)),
    cut("k", "p", deep, { reverse: true }),
  );

describe("what is wrong is told as a person would", () => {
  const posts = known("posts with rounded rims, patterned together"),
    flange = known("flange"),
    raised = known("box raised by its own face"),
    slotted = known("slotted plate");
  const cases: [string, () => [PartDocument, PartDocument], string][] = [
    [
      "a part that lies as it was drawn is not shifted to explain it",
      () => [raised, steps(raised, (s) => (s.id === "f" ? { ...s, suppressed: true } : s))],
      "The top face lies 5 mm too far down.",
    ],
    ["a pitch circle", () => [flange, given(flange, /place across/, 21)], "The 6 holes ⌀6 lie 1 mm off their places."],
    [
      "a row that was shifted by nearly its step",
      () => [posts, given(posts, /origin is 20 mm horizontally from the centre/, 40)],
      "The 3 cylinders ⌀6 lie 20 mm too far right.",
    ],
    [
      "roundings that go along are no fault of their own",
      () => [posts, given(posts, /has diameter 6 mm/, 6.9)],
      "The 3 cylinders ⌀6 are 0.9 mm too wide.",
    ],
    [
      "a rounding that nothing led astray",
      () => [posts, given(posts, /Fillet: radius/, 1.5)],
      "The 3 roundings R1 have a radius 0.5 mm too large and lie 0.5 mm too far down.",
    ],
    ["a pocket's floor", () => [pocketed(8), pocketed(9)], "The floor of the pocket lies 1 mm too far down."],
    ["a slot", () => [slotted, given(slotted, /15 mm horizontally/, 17)], "The slot 8 wide lies 2 mm too far right."],
    [
      "a plate twice as long, with its holes where they belong",
      () => [known("row of holes"), given(known("row of holes"), /100 mm long/, 200)],
      "The right end face lies 100 mm too far right.",
    ],
    [
      "two holes of six that were left out",
      () => [flange, known("ring with places left empty")],
      "The hole ⌀6 at the left front and the hole ⌀6 at the right back are missing.",
    ],
  ];
  it.each(cases)("%s", (_, make, sentence) => {
    const [reference, wrong] = make();
    expect(told(reference, wrong).shape).toBe(sentence);
  });
  it("of a row that was shifted its place alone is missed, not its spacing", () => {
    const r = told(posts, given(posts, /origin is 20 mm horizontally from the centre/, 40));
    expect(r.sizes).toBe(
      "8 of 9 printed sizes are right. " +
        "The distance from the left end face to the cylinder ⌀6 at the left is 40 mm, printed 20 mm.",
    );
  });
  it("what is too much has its article", () => {
    const wall = known("wall carried on to a boss");
    const turned = steps(wall, (s) => (s.id === "w" ? { ...s, reverse: true } : s));
    expect(told(wall, turned).shape).toMatch(
      /^An inner face looking left is there that the drawing does not have; an /,
    );
  });
  it("a step within the tolerance is none", () => {
    const wall = known("wall between two faces, the near one");
    expect(told(wall, given(wall, /4 · Extrude: depth/, 6.012)).verdict("shape")).toBe("met");
    expect(told(wall, given(wall, /4 · Extrude: depth/, 6.03)).verdict("shape")).toBe("missed");
  });
  it("bodies that touch have the shape of one, and are told to be two", () => {
    const bossed = (operation: "add" | "separate") =>
      part(
        ...box(40, 30, 10),
        sketch("t", { base: "top", offset: 10 }, rect(10, 10, 30, 20)),
        extrude("e", "t", 6, { operation }),
      );
    const r = told(bossed("add"), bossed("separate"));
    expect([r.verdict("shape"), r.verdict("sizes"), r.verdict("solid")]).toEqual(["met", "met", "missed"]);
    // apart they are no more than what is there
    const away = steps(bossed("separate"), (s) =>
      s.id === "t" ? { ...sketch("t", { base: "top", offset: 12 }, rect(10, 10, 30, 20)) } : s,
    );
    expect(told(bossed("add"), away).verdict("shape")).toBe("missed");
  });
});
