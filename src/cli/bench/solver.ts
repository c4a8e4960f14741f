import { Drag } from "@/core/sketch/drag";
import { pointAt } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { ladder } from "@/core/sketch/testing/ladder";
import { figure, quantile, timed, type Bench } from "./measure";

export const solverBench: Bench = async (bench) => {
  for (const n of [5, 12, 25, 50, 125]) {
    const sketch = ladder(n, 1.5);
    const solve = () => {
      const r = solveSketch(sketch, "mm");
      if (!r.ok || !r.value.solved || r.value.freedoms) throw new Error("the ladder was not solved");
    };
    figure(bench, `ladder-${n}`, "median", quantile(await timed(31, solve, 10), 0.5), "ms");
  }
  const r = solveSketch(ladder(50, 0, 1, 20), "mm");
  if (!r.ok) throw new Error("no drag");
  const start = pointAt(r.value.sketch, "r40s1.end");
  const drag = Drag.begin(r.value.sketch, "mm", { ref: "r40s1.end", at: start })!;
  let k = 0;
  const times = await timed(300, () => drag.to([start[0] + 20 * Math.sin(k++ / 17), start[1] + 8 * Math.cos(k / 11)]), 30);
  figure(bench, "drag-50", "p50", quantile(times, 0.5), "ms");
  figure(bench, "drag-50", "p95", quantile(times, 0.95), "ms");
};
