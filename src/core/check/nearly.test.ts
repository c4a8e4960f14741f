import { beforeAll, describe, expect, it } from "vitest";
import { studentSentence } from "@/core/grade/sentences";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { edge, extrude, face, hole, part, rect, sketch } from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "./check";
import { References } from "./references";
import { newExercise } from "./exercise/exercise";
import type { ShapeEvidence } from "./kinds/shape/kind";

let kernel: Kernel;
let references: References;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 2);
});

/** A plate of 200 mm with six holes, one of them moved or widened by a hair. */
const plate = (moved = 0, wider = 0, more: readonly object[] = []): PartDocument =>
  part(
    sketch("s", "top", rect(0, 0, 200, 120)),
    extrude("b", "s", 20),
    ...([
      hole("h", face("b/end"), 9, [
        [20, 20],
        [100, 20],
        [180, 20],
        [20, 100],
        [100, 100],
      ]),
      hole("k", face("b/end"), 9 + wider, [[180 + moved, 100]]),
      ...more,
    ] as unknown[] as never[]),
  );
const shapeOf = (submission: PartDocument): ShapeEvidence => {
  const exercise = { ...newExercise(), reference: plate(), sizes: [] };
  const r = checkSubmission(kernel, exercise, submission, { references });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value.report.evidence.find((e) => e.check === "shape") as ShapeEvidence;
};
const told = (e: ShapeEvidence) => studentSentence(e, newExercise());

describe("what nearly coincides is judged by its faces", () => {
  it.each([1e-2, 1e-3, 1e-4, 1e-5, 1e-6, 1e-7])("a hole %d mm elsewhere, or wider, is within the tolerance", (by) => {
    expect(shapeOf(plate(by)).verdict).toBe("met");
    expect(shapeOf(plate(0, by)).verdict).toBe("met");
  });
  it.each([0.03, 0.1, 0.5])("a hole %d mm elsewhere is not, and is named", (by) => {
    const e = shapeOf(plate(by));
    expect([e.verdict, told(e)]).toEqual(["missed", `The hole ⌀9 at the right back lies ${by} mm too far right.`]);
  });
  it("a chamfer of 0.1 mm that is not drawn is seen, and one that is drawn is missed", () => {
    const bevel = {
      id: "c",
      kind: "chamfer",
      groups: [{ size: { kind: "equal", distance: 0.1 }, edges: [{ id: "e", on: edge("b/side/l1", "b/end") }] }],
    };
    const extra = shapeOf(plate(0, 0, [bevel]));
    expect([extra.verdict, told(extra)]).toEqual(["missed", "A chamfer is there that the drawing does not have."]);
    const exercise = { ...newExercise(), reference: plate(0, 0, [bevel]), sizes: [] };
    const r = checkSubmission(kernel, exercise, plate());
    if (!r.ok) throw new Error(r.refusal.sentence);
    const missing = r.value.report.evidence.find((e) => e.check === "shape") as ShapeEvidence;
    expect([missing.verdict, told(missing)]).toEqual(["missed", "The chamfer is missing."]);
  });
  it("a hole left out is named, and nothing else", () => {
    const without = plate();
    const e = shapeOf({ ...without, steps: without.steps.filter((s) => s.id !== "k") });
    expect(told(e)).toBe("The hole ⌀9 at the right back is missing.");
    expect(e.features).toHaveLength(1);
  });
});
