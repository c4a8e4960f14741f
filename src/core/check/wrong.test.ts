import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { openNodeKernel } from "@/worker/kernel";
import { References } from "./references";
import { judged, judgeOf } from "./testing/judge";
import { referenceExercises } from "@/cli/bench/reference-parts";
import { wrongParts } from "./testing/wrong";
import { fewer, IS_LONG } from "@/core/part/testing/chosen";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

/** Every so many of the wrong parts; all of them in the long run. */
const STRIDE = IS_LONG ? 1 : 19;

describe("parts made wrong by machine are judged by what they are", () => {
  it.each(fewer(referenceExercises(), 2))("%s", (_, exercise) => {
    const judge = judgeOf(kernel, exercise, new References(kernel));
    const made = wrongParts(exercise.reference),
      stride = Math.max(1, Math.min(STRIDE, Math.floor(made.length / 5)));
    const chosen = made.filter((_part, i) => i % stride === 0);
    const all = chosen.flatMap((w) => judged(judge, w) ?? []);
    expect(all.length).toBeGreaterThan(2);
    expect(all.filter((j) => j.faults.length).map((j) => [j.label, ...j.faults])).toEqual([]);
    expect(all.filter((j) => j.isUnknown).map((j) => j.label)).toEqual([]);
  });
});
