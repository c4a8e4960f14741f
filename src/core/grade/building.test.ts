import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { Draft } from "@/demo/draft";
import { footExercise } from "@/demo/exercises";
import { STEEL } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import { newLine } from "@/core/check/exercise/rubric";
import type { WayRule } from "@/core/check/kinds/ways/rule";
import { evidenceFor } from "./grade";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

/** A plate 60 × 40 × 8 with holes ⌀6, each cut by a step of its own. @param holes their centres */
function plate(holes: readonly (readonly [number, number])[]): PartDocument {
  const d = new Draft("WS-08 AB", "mm", STEEL).sketch("top");
  d.rectangle([0, 0], [60, 40]);
  d.extrude("add", { kind: "depth", depth: 8 });
  for (const at of holes) {
    d.sketch("top");
    d.circle([at[0], at[1]], 3);
    d.extrude("cut", { kind: "through" });
  }
  return d.document;
}
const three = plate([
  [10, 20],
  [30, 20],
  [50, 20],
]);

const two = plate([
  [10, 20],
  [50, 20],
]);

function told(document: PartDocument, rule: WayRule): [verdict: string, sentence: string] {
  const line = { ...newLine("ways", 3), rule };
  const exercise: Exercise = { ...footExercise(), reference: plate([[30, 20]]), rubric: [line] };
  const r = checkSubmission(kernel, exercise, document, { by: { initials: "AB" } });
  if (!r.ok) throw new Error(r.refusal.sentence);
  const e = evidenceFor(line, r.value.report, exercise)!;
  if (e.check !== "ways") throw new Error("no evidence");
  return [e.verdict, [...(e.judged?.faults ?? []), e.judged?.good].join("; ")];
}

describe("ways of building", () => {
  it.each<[string, PartDocument, WayRule, string, RegExp]>([
    ["few steps", three, { way: "most-steps", most: 8 }, "met", /8 steps of at most 8/],
    ["too many", three, { way: "most-steps", most: 7 }, "missed", /8 steps, at most 7/],
    ["a kind that is not allowed", three, { way: "kinds", allowed: ["sketch"] }, "missed", /step 2 \(Extrude\)/],
    ["a kind that is asked for", three, { way: "kinds", asked: ["hole"] }, "missed", /there is no hole step/],
    ["kinds as asked", three, { way: "kinds", asked: ["extrude"] }, "met", /kinds of steps/],
    ["copies by hand", three, { way: "pattern" }, "missed", /3 times \(steps 4, 6, 8\)/],
    ["two are no pattern", two, { way: "pattern" }, "met", /Nothing is made one by one/],
    ["its name by the rule", three, { way: "names", part: "{number} {initials}" }, "met", /keep to the rule/],
    ["another name", three, { way: "names", part: "{title} {initials}" }, "missed", /by the rule “Tripod foot AB”/],
    ["steps without names", three, { way: "names", steps: true }, "missed", /step 1 \(Sketch on top\)/],
    ["not asked the program", three, { way: "define", used: false }, "met", /was not used/],
    ["should have asked it", three, { way: "define", used: true }, "missed", /was not used/],
  ])("%s", (_, document, rule, verdict, sentence) => {
    const [v, s] = told(document, rule);
    expect([v, s]).toEqual([verdict, expect.stringMatching(sentence)]);
  });

  it("knows what Define the rest gave", () => {
    const first = three.steps[0]!;
    if (first.kind !== "sketch") throw new Error("no sketch");
    const constraints = first.sketch.constraints.map((c) => ({ ...c, proposed: true }));
    const document = {
      ...three,
      steps: [{ ...first, sketch: { ...first.sketch, constraints } }, ...three.steps.slice(1)],
    };
    expect(told(document, { way: "define", used: false })[0]).toBe("missed");
    expect(told(document, { way: "define", used: true })[0]).toBe("met");
  });

  // the hole ⌀6 at 5 from the edge leaves 2; the plate is 8 thick
  it.each([
    [5, 2],
    [4, 1],
    [20, 8],
  ])("the thinnest wall beside a hole %d mm from the edge is %d", (from, wall) => {
    const document = plate([[from, 20]]);
    expect(told(document, { way: "wall", least: wall * 0.995 })[0]).toBe("met");
    const [verdict, sentence] = told(document, { way: "wall", least: wall * 1.03 });
    expect(verdict).toBe("missed");
    const measured = Number(/thinnest wall is ([\d.]+)/.exec(sentence)![1]);
    expect(Math.abs(measured / wall - 1)).toBeLessThan(0.005);
  });
});
