import { rebuild } from "@/core/part/rebuild";
import { displayMesh } from "@/core/check/facets/display-mesh";
import { openNodeKernel } from "@/worker/kernel";
import { LIMITS } from "@/worker/threads";
import { demoExercises, solidExercises } from "./demo-parts";
import { figure } from "./figures";
import { type Bench } from "./measure";

const REBUILDS = 500;
const MB = 1_048_576;

/** Rebuilds with meshes, in one instance until it has grown past the limit at which threads are replaced. */
export const memoryBench: Bench = async (bench) => {
  for (const [name, e] of [...demoExercises(), ...solidExercises()]) {
    let kernel = await openNodeKernel();
    let peak = 0,
      replaced = 0;
    for (let i = 0; i < REBUILDS; i++) {
      const { body } = rebuild(kernel, e.reference);
      if (body) displayMesh(kernel, body, 100);
      kernel.release(body?.shape);
      peak = Math.max(peak, kernel.heapBytes);
      if (kernel.heapBytes > LIMITS.replaceBytes) {
        kernel = await openNodeKernel();
        replaced++;
      }
    }
    figure(bench, name, "peak", peak / MB, "MB");
    figure(bench, name, "replaced", replaced, "times");
  }
};
