import type { Cause, Mend } from "@/core/cause/cause";
import { findCause } from "@/core/cause/find";
import { Lacking } from "@/core/cause/missing";
import { References } from "@/core/check/references";
import { wrongParts, type WrongPart } from "@/core/check/testing/wrong";
import { openNodeKernel } from "@/worker/kernel";
import { LIMITS } from "@/worker/threads";
import { figure } from "./figures";
import { quantile, type Bench } from "./measure";
import { referenceExercises } from "./reference-parts";

/** A cause is looked for so long, of one core. */
const BUDGET_MS = 8_000;
/** Wrong parts are many: every so many. */
const STRIDE = 5;
/** What the search knows nothing of: sketches that are loose and materials leave no trace in the shape. */
const TRACELESS: ReadonlySet<WrongPart["kind"]> = new Set(["loose", "material"]);

/** What a mend has to be to be the mistake that was made. */
const MENDS: Readonly<Partial<Record<WrongPart["kind"], readonly Mend["do"][]>>> = {
  number: ["number"],
  "left out": ["add"],
  "turned round": ["turn"],
  "cut short": ["turn"],
  "two bodies": ["turn", "whole"],
};

interface Tally {
  tried: number;
  /** Certain, and of the sort that was made; or by another that makes the very same part. */
  certain: number;
  likely: number;
  partly: number;
}

/** Causes of machine-made mistakes: how many are found, and how long it takes. */
export const causeBench: Bench = async (bench) => {
  let kernel = await openNodeKernel();
  const times: number[] = [];
  const tallies = new Map<string, Tally>();
  for (const [, exercise] of referenceExercises()) {
    if (kernel.heapBytes > LIMITS.replaceBytes) kernel = await openNodeKernel();
    const references = new References(kernel, 2),
      lacking = new Lacking();
    const sizes = references.sizes(exercise.reference, () => {});
    const asked = { ...exercise, sizes: exercise.sizes ?? [...sizes] };
    const wrong = wrongParts(exercise.reference).filter((w) => !TRACELESS.has(w.kind));
    for (const w of wrong.filter((_, i) => i % STRIDE === 0)) {
      const start = performance.now();
      const mayGoOn = () => performance.now() - start < BUDGET_MS;
      const r = findCause(kernel, asked, w.document, { references, lacking, mayGoOn });
      if (!r.ok || r.value.found === "none") continue;
      times.push(performance.now() - start);
      count(tallies, w.kind, r.value);
    }
  }
  for (const [kind, t] of tallies) {
    const share = (n: number) => (100 * n) / t.tried;
    figure(bench, `${kind}, ${t.tried} parts`, "certain", share(t.certain), "%");
    figure(bench, `${kind}, ${t.tried} parts`, "of the sort that was made", share(t.likely), "%");
    figure(bench, `${kind}, ${t.tried} parts`, "in part", share(t.partly), "%");
  }
  figure(bench, "one part", "median", quantile(times, 0.5), "ms");
  figure(bench, "one part", "p95", quantile(times, 0.95), "ms");
};

function count(tallies: Map<string, Tally>, kind: WrongPart["kind"], cause: Cause): void {
  const t = tallies.get(kind) ?? { tried: 0, certain: 0, likely: 0, partly: 0 };
  tallies.set(kind, t);
  t.tried++;
  if (cause.found === "partly") t.partly++;
  if (cause.found !== "certain") return;
  t.certain++;
  const sorts = MENDS[kind];
  if (!sorts || cause.or.some((mends) => mends.some((m) => sorts.includes(m.do)))) t.likely++;
}
