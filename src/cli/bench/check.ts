import { checkSubmission } from "@/core/check/check";
import { openNodeKernel } from "@/worker/kernel";
import { demoSubmissions } from "./demo-parts";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";

export const checkBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  for (const [name, exercise, part] of demoSubmissions()) {
    const run = () => {
      const r = checkSubmission(kernel, exercise, part);
      if (!r.ok) throw new Error(r.refusal.sentence);
    };
    figure(bench, name, "median", quantile(await timed(7, run, 1), 0.5), "ms");
  }
};
