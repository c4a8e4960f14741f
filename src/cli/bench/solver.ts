import { Drag } from "@/core/sketch/drag";
import { pointAt, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { mixed } from "@/core/sketch/testing/mixed";
import { family, MEMBER } from "@/core/sketch/testing/family";
import { ladder } from "@/core/sketch/testing/ladder";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";

const solved = (sketch: Sketch) => {
  const r = solveSketch(sketch, "mm");
  if (!r.ok || !r.value.solved) throw new Error("the sketch was not solved");
  return r.value;
};

/** Times of drag steps that lead a point about; the sketch must have a freedom there. */
async function dragTimes(sketch: Sketch, ref: string): Promise<number[]> {
  const start = pointAt(sketch, ref);
  const drag = Drag.begin(sketch, "mm", { ref, at: start })!;
  let k = 0;
  return timed(300, () => drag.to([start[0] + 20 * Math.sin(k++ / 17), start[1] + 8 * Math.cos(k / 11)]), 30);
}

export const solverBench: Bench = async (bench) => {
  const cases: [string, Sketch][] = [5, 12, 25, 50, 125, 500].map((n): [string, Sketch] => [
    `ladder-${n}`,
    ladder(n, 1.5),
  ]);
  cases.push(["mixed-120", mixed(0.5)]);
  for (const curves of [60, 120, 240, 480, 960]) cases.push([`family-${curves}`, family(curves / MEMBER, 0.4)]);
  for (const [name, sketch] of cases) {
    const times = await timed(
      /500|960|480/.test(name) ? 11 : 31,
      () => {
        if (solved(sketch).freedoms) throw new Error("the sketch is not fully defined");
      },
      30,
    );
    figure(bench, name, "median", quantile(times, 0.5), "ms");
  }
  const drags: [string, Sketch, string][] = [
    ["drag-50", ladder(50, 0, 1, 20), "r40s1.end"],
    ["mixed-120-drag", mixed(0, 1, "width"), "p1.start"],
  ];
  for (const [name, sketch, ref] of drags) {
    const times = await dragTimes(solved(sketch).sketch, ref);
    figure(bench, name, "p50", quantile(times, 0.5), "ms");
    figure(bench, name, "p95", quantile(times, 0.95), "ms");
  }
};
