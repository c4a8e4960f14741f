import { checkSubmission } from "@/core/check/check";
import { References } from "@/core/check/references";
import { judged, judgeOf } from "@/core/check/testing/judge";
import { referenceExercises } from "./reference-parts";
import { wrongParts } from "@/core/check/testing/wrong";
import { openNodeKernel } from "@/worker/kernel";
import { demoSubmissions } from "./demo-parts";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";

export const checkBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  const references = new References(kernel, 8);
  for (const [name, exercise, part] of demoSubmissions()) {
    const run = () => {
      const r = checkSubmission(kernel, exercise, part, { references });
      if (!r.ok) throw new Error(r.refusal.sentence);
    };
    figure(bench, name, "median", quantile(await timed(7, run, 1), 0.5), "ms");
  }
  // the parts of the test of wrong parts, all of them
  const took: number[] = [];
  const counts = { parts: 0, wrong: 0, unknown: 0 };
  for (const [, exercise] of referenceExercises()) {
    const judge = judgeOf(kernel, exercise, references);
    for (const w of wrongParts(exercise.reference)) {
      const j = judged(judge, w);
      if (!j) continue;
      took.push(j.took);
      counts.parts += 1;
      counts.wrong += j.faults.length ? 1 : 0;
      counts.unknown += j.isUnknown ? 1 : 0;
    }
  }
  for (const [what, n] of Object.entries(counts)) figure(bench, "wrong-parts", what, n, "parts");
  for (const q of [0.5, 0.95]) figure(bench, "wrong-parts", `p${q * 100}`, quantile(took, q), "ms");
};
