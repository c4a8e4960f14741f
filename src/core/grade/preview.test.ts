import { beforeAll, describe, expect, it } from "vitest";
import { newLine } from "@/core/check/exercise/rubric";
import type { Kernel } from "@/core/kernel/opencascade";
import { bracketExercise, footExercise } from "@/demo/exercises";
import { openNodeKernel } from "@/worker/kernel";
import { tryMistakes } from "@/core/check/mistakes";
import { previewOf } from "./preview";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

describe("what a rubric gives, before anybody hands in", () => {
  it.each([footExercise(), bracketExercise()])("$title: all for the reference, less for every mistake", (exercise) => {
    const told: string[] = [];
    const r = tryMistakes(kernel, exercise, (what) => told.push(what));
    if (!r.ok) throw new Error(r.refusal.sentence);
    const { reference, mistakes } = previewOf(exercise, r.value);
    expect(reference.points).toBe(reference.of);
    expect(mistakes.length).toBeGreaterThan(6);
    for (const { label, grade } of mistakes) expect([label, grade.points < grade.of]).toEqual([label, true]);
    const lost = (label: RegExp, line: string) => {
      const found = mistakes.find((m) => label.test(m.label))!.grade.lines.find((l) => l.id === line)!;
      return found.of - found.points;
    };
    expect(lost(/dimension forgotten/, "sketches")).toBeGreaterThan(0);
    // the bracket is its own mirror image
    const isMirrored = mistakes.some((m) => /mirror image/.test(m.label));
    expect(isMirrored).toBe(exercise.number === "WS-08");
    if (isMirrored) expect(lost(/mirror image/, "shape")).toBeGreaterThan(0);
    expect(lost(/^Numbers typed in/, "mass")).toBeGreaterThan(0);
    expect(told.length).toBeGreaterThanOrEqual(mistakes.length);
  });

  it("tells when the reference itself would not get all", () => {
    const exercise = footExercise();
    const line = { ...newLine("ways", 2), rule: { way: "most-steps" as const, most: 1 } };
    const asked = { ...exercise, rubric: [...exercise.rubric, line] };
    const r = tryMistakes(kernel, asked);
    if (!r.ok) throw new Error(r.refusal.sentence);
    const { reference } = previewOf(asked, r.value);
    expect(reference.points).toBe(reference.of - 2);
    expect(reference.lines.find((l) => l.check === "ways")!.sentence).toMatch(/steps, at most 1 are asked for/);
  });
});
