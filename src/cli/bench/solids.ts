import { displayMesh } from "@/core/check/facets/display-mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import { roughBoxOf } from "@/core/kernel/properties";
import { distance3 } from "@/core/geometry/vector";
import type { PartDocument } from "@/core/part/document";
import { Rebuilder } from "@/core/part/rebuild";
import { longPart, mastClamp, pulley, tripodBase } from "@/demo/long-part";
import { openNodeKernel } from "@/worker/kernel";
import { solidExercises } from "./demo-parts";
import { figure } from "./figures";
import { quantile, type Bench } from "./measure";

const RUNS = 15;

/** Ours and the library's own milliseconds over some work, as their quotient's median. */
function compared(kernel: Kernel, work: () => void): { ours: number; theirs: number; ratio: number } {
  const ours: number[] = [],
    theirs: number[] = [],
    ratio: number[] = [];
  for (let i = 0; i < RUNS + 3; i++) {
    const before = kernel.libraryMs,
      start = performance.now();
    work();
    const o = performance.now() - start,
      t = kernel.libraryMs - before;
    if (i < 3) continue;
    ours.push(o);
    theirs.push(t);
    ratio.push(o / t);
  }
  return { ours: quantile(ours, 0.5), theirs: quantile(theirs, 0.5), ratio: quantile(ratio, 0.5) };
}

/** The part with its last step changed by a hair, another each time. */
const variant = (d: PartDocument, n: number): PartDocument => ({
  ...d,
  steps: d.steps.map((s, i) => (i === d.steps.length - 1 ? { ...s, id: `variant${n}` } : s)),
});

/**
 * Whole rebuilds and edits of the last step against the library's own time for the same calls; and how soon the view
 * has its mesh.
 */
export const solidsBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  for (const [name, d] of [
    ...solidExercises().map(([n, e]) => [n, e.reference] as const),
    ["pulley", pulley()] as const,
    ["mast-clamp", mastClamp()] as const,
    ["tripod-base", tripodBase()] as const,
    ["station-frame", longPart()] as const,
  ]) {
    const whole = compared(kernel, () => {
      const r = new Rebuilder(kernel);
      r.run(d);
      r.close();
    });
    figure(bench, name, "steps", d.steps.length, "steps");
    figure(bench, name, "rebuild", whole.ours, "ms");
    figure(bench, name, "rebuild-against-library", whole.ratio, "times");
    const kept = new Rebuilder(kernel);
    kept.run(d);
    let n = 0;
    const last = compared(kernel, () => void kept.run(variant(d, n++)));
    figure(bench, name, "last-step", last.ours, "ms");
    figure(bench, name, "last-step-against-library", last.ratio, "times");
    const mesh: number[] = [];
    for (let i = 0; i < RUNS + 3; i++) {
      const { body } = kept.run(variant(d, n++));
      const start = performance.now(),
        box = roughBoxOf(kernel, body!.shape);
      kernel.library.BRepTools.Clean(body!.shape, true);
      displayMesh(kernel, body!, distance3(box.min, box.max));
      if (i >= 3) mesh.push(performance.now() - start);
    }
    figure(bench, name, "mesh", quantile(mesh, 0.5), "ms");
    kept.close();
  }
};
