import { beforeAll, describe, expect, it } from "vitest";
import type { Exercise } from "@/core/check/exercise/exercise";
import { References } from "@/core/check/references";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import type { Step } from "@/core/part/steps/kinds";
import { drivingNumbers } from "@/core/sizes/numbers";
import { armExercise, bracketExercise, footExercise } from "@/demo/exercises";
import { openNodeKernel } from "@/worker/kernel";
import type { Cause } from "./cause";
import { findCause } from "./find";
import { Lacking } from "./missing";
import { causeText } from "./sentences";

let kernel: Kernel, references: References, lacking: Lacking;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 3);
  lacking = new Lacking();
});

const foot = footExercise(),
  bracket = bracketExercise(),
  arm = armExercise();
const BORE = /^The 1 1\/2 was taken for the ⌀1\/2, or one digit off: 1\.5 in for ⌀1\/2\. .*with 0\.5 in it/;
const found = (e: Exercise, part: PartDocument, mayGoOn = () => true): Cause => {
  const r = findCause(kernel, e, part, { references, lacking, mayGoOn });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
/** The first number of a part with such a value, set to another. mm */
const typed = (d: PartDocument, is: number, to: number, called = /./): PartDocument =>
  drivingNumbers(d)
    .find((n) => Math.abs(n.value - is) < 1e-9 && called.test(n.label))!
    .give(to);
const withStep = (d: PartDocument, at: number, change: object): PartDocument => ({
  ...d,
  steps: d.steps.map((s, i) => (i === at - 1 ? ({ ...s, ...change } as Step) : s)),
});

/** All numbers as they are typed, without their unit. */
const bare = (d: PartDocument): PartDocument => JSON.parse(JSON.stringify(d).replaceAll(' mm"', '"')) as PartDocument;
/** The arm seen from below: both plates rise the other way. */
function mirrored(d: PartDocument): PartDocument {
  const boss = d.steps[2] as Extract<Step, { kind: "sketch" }>;
  const plane = { base: "top" as const, offset: -9.525 };
  const below = withStep(d, 3, { sketch: { ...boss.sketch, plane } });
  return withStep(withStep(below, 2, { reverse: true }), 4, { reverse: true });
}

describe("what makes a part wrong", () => {
  const f = foot.reference,
    b = bracket.reference;
  it.each<[string, Exercise, PartDocument, RegExp]>([
    ["digits exchanged", foot, typed(f, 96, 69), /^Digits exchanged: 69 mm for 96\. In 1 · Sketch on front: .* 69 mm/],
    [
      "a radius for a diameter",
      foot,
      typed(f, 18, 36, /diameter/),
      /^⌀18 was taken for a radius\. .*36 mm; with 18 mm it is as/,
    ],
    ["one digit off", foot, typed(f, 44, 45), /^One digit off: 45 mm for 44\. .*5 · Sketch on right/],
    ["a value nobody expects", foot, typed(f, 62, 71.575), /^71\.575 mm for 62\. .*71\.575 mm; with 62 mm/],
    ["a hole forgotten", foot, withStep(f, 6, { suppressed: true }), /^Missing: the 2 holes ⌀9\.$/],
    [
      "blind for through",
      foot,
      withStep(f, 4, { extent: { kind: "depth", depth: "9 mm" } }),
      /4 · Extrude goes to a dep/,
    ],
    ["the radius of a rounding", bracket, typed(b, 6, 12), /^12 mm for R6: twice as much\. In 3 · Fillet: radius 1/],
    ["a hole drilled the other way", bracket, withStep(b, 4, { reverse: true }), /^4 · Hole goes to the wrong side\.$/],
    ["a bore so wide that nothing is left of it to measure", arm, typed(arm.reference, 12.7, 38.1, /diameter/), BORE],
    ["a place on a face", bracket, typed(b, 36, 38.86), /^38\.86 mm for 36\. In 4 · Hole: place across/],
  ])("%s", (_, exercise, part, sentence) => {
    const cause = found(exercise, part);
    expect(cause.found).toBe("certain");
    expect(causeText(cause)).toMatch(sentence);
  });

  it("two numbers are found one after the other", () => {
    const cause = found(foot, typed(typed(f, 96, 69), 18, 20, /diameter/));
    expect(cause).toMatchObject({ found: "certain", or: [[{ do: "number" }, { do: "number" }]] });
    expect(causeText(cause)).toMatch(/69 mm/);
    expect(causeText(cause)).toMatch(/20 mm/);
  });

  it("the reference itself, and what leaves no trace in the shape, has no cause", () => {
    expect(found(foot, f)).toEqual({ found: "none" });
    // a cut through both ways, turned round
    expect(found(foot, withStep(f, 4, { reverse: true }))).toEqual({ found: "none" });
    expect(causeText({ found: "none" })).toBe("");
  });

  it.each<[string, Exercise, PartDocument, string]>([
    ["typed in the other unit", foot, bare({ ...f, units: "in" }), "unit"],
    ["a boss that is a body of its own", arm, withStep(arm.reference, 4, { operation: "separate" }), "joined"],
  ])("%s is known by the whole", (_, exercise, part, what) => {
    expect(found(exercise, part)).toEqual({ found: "certain", or: [[{ do: "whole", what }]] });
  });

  it("what is mirrored is told as that", () => {
    const cause = found(arm, mirrored(arm.reference));
    expect(cause).toEqual({ found: "certain", or: [[{ do: "whole", what: "mirrored" }]] });
  });

  it("what something else hides is told in part, and nothing certain is made up", () => {
    // a plate of another outline altogether, with a hole too wide
    const other = withStep(typed(f, 18, 20, /diameter/), 6, {
      extent: { kind: "depth", depth: "3.3 mm" },
      reverse: true,
    });
    const cause = found(foot, other);
    expect(["partly", "certain"]).toContain(cause.found);
    expect(causeText(cause)).toMatch(/20 mm for ⌀18/);
  });

  it("stops when it is told to, and says so", () => {
    expect(found(foot, typed(f, 96, 69), () => false)).toEqual({ found: "unknown", spent: true });
    expect(causeText({ found: "unknown", spent: true })).toMatch(/not found in the time/);
  });
});
