import { checkMeasured, checkSubmission } from "@/core/check/check";
import { newExercise, type Exercise } from "@/core/check/exercise/exercise";
import { measurePart, measureSolid } from "@/core/check/given/measured";
import { References } from "@/core/check/references";
import { judged, judgeOf, type Judgement } from "@/core/check/testing/judge";
import { wrongParts } from "@/core/check/testing/wrong";
import type { Rigid } from "@/core/geometry/rigid";
import { copied } from "@/core/kernel/boolean";
import type { Kernel } from "@/core/kernel/opencascade";
import { placed } from "@/core/kernel/place";
import type { PartDocument } from "@/core/part/document";
import { circ, cut, part, rect, sketch, extrude } from "@/core/part/testing/build";
import { sizesOf } from "@/core/sizes/sizes";
import { done } from "@/core/units/refusal";
import { longPart } from "@/demo/long-part";
import { openNodeKernel } from "@/worker/kernel";
import { LIMITS } from "@/worker/threads";
import { demoSubmissions } from "./demo-parts";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";
import { referenceExercises } from "./reference-parts";

const MB = 1_048_576;
/** Checks in one instance, as a grading thread makes them. */
const CHECKS = 500;
/** Wrong parts of the long part are many: every so many. */
const LONG_STRIDE = 12;

export const checkBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  const references = new References(kernel, 8);
  for (const [name, exercise, part] of demoSubmissions()) {
    const run = () => checked(kernel, exercise, part, references);
    figure(bench, name, "median", quantile(await timed(7, run, 1), 0.5), "ms");
  }
  // the parts of the test of wrong parts, all of them; an instance that has grown is replaced, as a thread's is
  let own = kernel;
  const small: Judgement[] = [];
  for (const [, exercise] of referenceExercises()) {
    if (own.heapBytes > LIMITS.replaceBytes) own = await openNodeKernel();
    small.push(...judgements(own, exercise, new References(own, 1), 1));
  }
  told(bench, "wrong-parts", small);
  const frame: Exercise = { ...newExercise(), reference: longPart() };
  await right(bench, "right part, 9 to 60 faces", kernel, references, referenceExercises());
  await right(bench, "right part, 204 faces", kernel, references, [["station-frame", frame]]);
  const another = await openNodeKernel();
  told(bench, "wrong parts, 204 faces", judgements(another, frame, new References(another, 1), LONG_STRIDE));
  await holes(bench, await openNodeKernel());
  const fresh = await openNodeKernel(),
    start = performance.now();
  sizesOf(fresh, longPart());
  figure(bench, "rank table of 40 steps", "once", (performance.now() - start) / 1000, "s");
  await memory(bench);
};

function checked(kernel: Kernel, exercise: Exercise, part: PartDocument, references: References): void {
  const r = checkSubmission(kernel, exercise, part, { references });
  if (!r.ok) throw new Error(r.refusal.sentence);
}

function judgements(kernel: Kernel, exercise: Exercise, references: References, stride: number): Judgement[] {
  const judge = judgeOf(kernel, exercise, references);
  return wrongParts(exercise.reference).flatMap((w, i) => (i % stride ? [] : (judged(judge, w) ?? [])));
}

function told(bench: string, name: string, all: readonly Judgement[]): void {
  figure(bench, name, "parts", all.length, "parts");
  const misjudged = all.filter((j) => j.faults.length);
  for (const { label, faults } of misjudged) console.error(`${name}: ${label}: ${faults.join("; ")}`);
  figure(bench, name, "wrong", misjudged.length, "parts");
  figure(bench, name, "unknown", all.filter((j) => j.isUnknown).length, "parts");
  const took = all.map((j) => j.took);
  for (const q of [0.5, 0.95]) figure(bench, name, `p${q * 100}`, quantile(took, q), "ms");
}

const ELSEWHERE: Rigid = {
  rows: [
    [0, -1, 0],
    [0.6, 0, 0.8],
    [-0.8, 0, 0.6],
  ],
  shift: [13, -41, 7],
};

/** Right parts that lie elsewhere and turned: the check alone, without building. */
async function right(
  bench: string,
  name: string,
  kernel: Kernel,
  references: References,
  exercises: readonly (readonly [string, Exercise])[],
) {
  const times: number[] = [];
  for (const [, exercise] of exercises) {
    const { solid } = measurePart(kernel, exercise.reference);
    const sized = { ...exercise, sizes: [...references.sizes(exercise.reference, () => {})] };
    const make = () => done(measureSolid(kernel, placed(kernel, solid!, ELSEWHERE)));
    const run = () => checkMeasured(kernel, sized, make, { references });
    times.push(...(await timed(5, run, 1)));
    kernel.release(solid!.shape);
  }
  figure(bench, name, "median", quantile(times, 0.5), "ms");
  figure(bench, name, "p95", quantile(times, 0.95), "ms");
}

/** A plate of 40 × 40 holes, one of them too large. */
async function holes(bench: string, kernel: Kernel) {
  const plate = (wide: number) =>
    part(
      sketch("s", "top", rect(0, 0, 240, 240)),
      extrude("b", "s", 5),
      sketch(
        "h",
        "top",
        ...Array.from({ length: 1600 }, (_, i) =>
          circ((i % 40) * 6 + 3, Math.floor(i / 40) * 6 + 3, i === 777 ? wide : 2, `c${i}`),
        ),
      ),
      cut("k", "h", "through"),
    );
  const exercise: Exercise = { ...newExercise(), reference: plate(2), sizes: [] };
  const references = new References(kernel, 1);
  checked(kernel, exercise, plate(2), references);
  const wrong = measurePart(kernel, plate(2.2));
  const own = () => done(measureSolid(kernel, copied(kernel, wrong.solid!)));
  const times = await timed(3, () => checkMeasured(kernel, exercise, own, { references }), 0);
  figure(bench, "plate of 1600 holes, one too large", "median", quantile(times, 0.5) / 1000, "s");
}

/** Checks one after the other in one instance, replaced when it has grown as far as a thread may. */
async function memory(bench: string) {
  let kernel = await openNodeKernel(),
    references = new References(kernel, 6),
    [peak, replaced] = [0, 0];
  const all = demoSubmissions();
  for (let i = 0; i < CHECKS; i++) {
    const [, exercise, part] = all[i % all.length]!;
    checked(kernel, exercise, part, references);
    peak = Math.max(peak, kernel.heapBytes);
    if (kernel.heapBytes <= LIMITS.replaceBytes) continue;
    kernel = await openNodeKernel();
    references = new References(kernel, 6);
    replaced++;
  }
  figure(bench, `${CHECKS} checks`, "peak", peak / MB, "MB");
  figure(bench, `${CHECKS} checks`, "replaced", replaced, "times");
}
