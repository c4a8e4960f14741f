import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { SOLIDS } from "@/core/part/testing/solids";
import { footExercise } from "@/demo/exercises";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "./check";
import type { Exercise } from "./exercise/exercise";
import { fewer } from "@/core/part/testing/chosen";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const exercise = (reference: Exercise["reference"]): Exercise => ({
  ...footExercise(),
  tolerances: { volume: 0.001, mass: 0.001, shape: 0.001 },
  reference,
});

// the same part built in several right ways: none may be punished
describe("every way of building a part passes the checks against every first way", () => {
  const pairs = SOLIDS.filter((s) => (s.bodies ?? 1) === 1).flatMap((s) =>
    s.ways.slice(1).map((way, i) => [`${s.name}, way ${i + 2}`, s.ways[0]!, way] as const),
  );
  it.each(fewer(pairs, 3))("%s", (_, reference, way) => {
    for (const [asked, given] of [
      [reference, way],
      [way, reference],
    ] as const) {
      const r = checkSubmission(kernel, exercise(asked), given);
      if (!r.ok) throw new Error(r.refusal.sentence);
      expect(r.value.report.evidence.filter((e) => e.check !== "sketches" && e.verdict !== "met")).toEqual([]);
    }
  });
});
