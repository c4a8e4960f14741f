import { beforeAll, describe, expect, it } from "vitest";
import { writeStep } from "@/core/kernel/exchange";
import type { Kernel } from "@/core/kernel/opencascade";
import { rebuild } from "@/core/part/rebuild";
import { readPart, type PartDocument } from "@/core/part/document";
import { footExercise } from "@/demo/exercises";
import { tripodFoot, tripodFootElsewhere } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "../check";
import type { Exercise } from "../exercise/exercise";
import { prepareExercise } from "../exercise/prepare";

let kernel: Kernel, exercise: Exercise;
/** The tripod's foot, with a reference that came as a file. */
beforeAll(async () => {
  kernel = await openNodeKernel();
  const { body } = rebuild(kernel, tripodFoot());
  const step = writeStep(kernel, body!, "foot");
  kernel.release(body!.shape);
  const reference: PartDocument = {
    ...tripodFoot(),
    steps: [{ id: "imported1", kind: "imported", file: "foot.step", step }],
  };
  const plain = { ...footExercise(), reference };
  const r = prepareExercise(kernel, plain);
  if (!r.ok) throw new Error(r.refusal.sentence);
  expect(r.value.proof.points).toEqual([]);
  exercise = { ...plain, sizes: [...r.value.sizes] };
});

describe("a reference from a file", () => {
  const missed = (part: PartDocument) => {
    const r = checkSubmission(kernel, exercise, part);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value.report.evidence.filter((e) => "verdict" in e && e.verdict === "missed").map((e) => e.check);
  };
  it("passes a right part, built its own way and elsewhere", () => {
    expect(missed(tripodFoot())).toEqual([]);
    expect(missed(tripodFootElsewhere())).toEqual([]);
  });
  it("tells a wrong one by its size", () => {
    const r = checkSubmission(kernel, exercise, tripodFoot({ baseHole: 20 }));
    const sizes = r.ok && r.value.report.evidence.find((e) => e.check === "sizes");
    expect(
      sizes && sizes.check === "sizes" && sizes.sizes.filter((s) => s.state === "missed").map((s) => s.text),
    ).toEqual(["⌀18"]);
  });
  it("is one step that is read like any other, and a damaged one is a sentence", () => {
    expect(readPart(JSON.stringify(exercise.reference)).ok).toBe(true);
    const [step] = exercise.reference.steps;
    const cut = { ...step!, step: "ISO-10303-21;\nHEADER;" } as typeof step;
    const built = rebuild(kernel, { ...exercise.reference, steps: [cut!] });
    expect(built.steps[0]!.refusal!.sentence).toMatch(/cut off/);
  });
});
