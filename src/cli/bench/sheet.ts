import { makeSheet } from "@/core/sheet/sheet";
import { openNodeKernel } from "@/worker/kernel";
import { demoExercises } from "./demo-parts";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";

export const sheetBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  for (const [name, e] of demoExercises())
    figure(bench, name, "median", quantile(await timed(7, () => makeSheet(kernel, e), 1), 0.5), "ms");
};
