import { rebuild } from "@/core/part/rebuild";
import { openNodeKernel } from "@/worker/kernel";
import { demoExercises } from "./demo-parts";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";

export const rebuildBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  for (const [name, e] of demoExercises())
    figure(
      bench,
      name,
      "median",
      quantile(await timed(21, () => kernel.release(rebuild(kernel, e.reference).body?.shape)), 0.5),
      "ms",
    );
};
