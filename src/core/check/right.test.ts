import { beforeAll, describe, expect, it } from "vitest";
import { turnedVector } from "@/core/geometry/line";
import { IDENTITY, type Rigid } from "@/core/geometry/rigid";
import { unit3, type Vec3 } from "@/core/geometry/vector";
import { readStep, writeStep } from "@/core/kernel/exchange";
import type { Kernel } from "@/core/kernel/opencascade";
import { placed, scaled } from "@/core/kernel/place";
import type { Solid } from "@/core/kernel/solid";
import { gradeReport } from "@/core/grade/grade";
import { rebuild } from "@/core/part/rebuild";
import { drivingNumbers } from "@/core/sizes/numbers";
import { done } from "@/core/units/refusal";
import { openNodeKernel } from "@/worker/kernel";
import { checkMeasured, checkSubmission } from "./check";
import { measureSolid } from "./given/measured";
import { References } from "./references";
import type { Exercise } from "./exercise/exercise";
import type { ShapeEvidence } from "./kinds/shape/kind";
import { otherWays } from "./testing/other-ways";
import { referenceExercises } from "@/cli/bench/reference-parts";
import { fewer, IS_LONG } from "@/core/part/testing/chosen";

let kernel: Kernel;
let references: References;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 40);
});

const exercises = referenceExercises();

/** Parts that differ from their mirror images. */
const HANDED: ReadonlySet<string> = new Set(["tripod-foot", "vane-arm", "counterbored hole", "countersunk hole"]);

/** One motion; three in the long run. */
const SEEDS = IS_LONG ? [1, 2, 3] : [2];

/** A motion that no drawing has, another for each seed. */
function anyMotion(seed: number): Rigid {
  const axis = unit3([Math.sin(seed * 1.3) + 0.1, Math.cos(seed * 2.1), Math.sin(seed * 3.7) - 0.2]);
  const column = (v: Vec3) => turnedVector(v, axis, 0.7 + seed * 1.1);
  const [x, y, z] = [column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1])];
  const rows: Rigid["rows"] = [
    [x[0], y[0], z[0]],
    [x[1], y[1], z[1]],
    [x[2], y[2], z[2]],
  ];
  return { rows, shift: [13.7 * seed, -41.3, 7.1 + seed] };
}

/** Lines that a body without steps and without typed figures can earn. */
const isOfPart = (l: { readonly id: string }) => l.id !== "sketches" && l.id !== "answers";

const lost = (exercise: Exercise, make: (s: Solid) => Solid) => {
  const built = rebuild(kernel, exercise.reference).body!;
  const solid = make(built);
  const r = checkMeasured(kernel, exercise, () => done(measureSolid(kernel, solid)), { references });
  if (!r.ok) throw new Error(r.refusal.sentence);
  const grade = gradeReport(exercise, r.value.report);
  return grade.lines.filter((l) => isOfPart(l) && l.points < l.of).map((l) => l.sentence);
};

describe("a right part loses no line", () => {
  it.each(fewer(exercises, 3, 0))("%s: moved and turned at random", (_, exercise) => {
    for (const seed of SEEDS) expect(lost(exercise, (s) => placed(kernel, s, anyMotion(seed)))).toEqual([]);
  });
  it.each(fewer(exercises, 3, 1))("%s: as a STEP file, turned", (_, exercise) => {
    const file = (s: Solid) => readStep(kernel, writeStep(kernel, placed(kernel, s, anyMotion(4)), "part"));
    expect(lost(exercise, file)).toEqual([]);
  });
  it.each(fewer(exercises, 3, 2))("%s: in the other unit, in another order, as a mirrored half", (_, exercise) => {
    const ways = otherWays(kernel, exercise.reference);
    expect(ways.length).toBeGreaterThan(0);
    for (const [label, document] of ways) {
      const r = checkSubmission(kernel, exercise, document, { references });
      if (!r.ok) throw new Error(r.refusal.sentence);
      const { lines } = gradeReport(exercise, r.value.report);
      const missed = lines.filter((l) => l.id !== "answers" && l.points < l.of).map((l) => l.sentence);
      expect([label, ...missed]).toEqual([label]);
    }
  });
  it.each(fewer(exercises, 3, 3))("%s: with its sizes rounded by inches", (_, exercise) => {
    // as somebody types them who works in inches with four decimals
    const rounded = drivingNumbers(exercise.reference).reduce((document, number, i) => {
      if (number.quantity !== "length") return document;
      const inches = Math.round((number.value / 25.4) * 1e4) / 1e4;
      return drivingNumbers(document)[i]!.give(inches * 25.4);
    }, exercise.reference);
    const r = checkSubmission(kernel, exercise, rounded, { references });
    if (!r.ok) throw new Error(r.refusal.sentence);
    const grade = gradeReport(exercise, r.value.report);
    expect(grade.lines.filter((l) => isOfPart(l) && l.points < l.of).map((l) => l.sentence)).toEqual([]);
  });
});

describe("a part that is wrong as a whole is told as that", () => {
  const shapeOf = (exercise: Exercise, make: (s: Solid) => Solid) => {
    const solid = make(rebuild(kernel, exercise.reference).body!);
    const r = checkMeasured(kernel, exercise, () => done(measureSolid(kernel, solid)), { references });
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value.report.evidence.find((e) => e.check === "shape") as ShapeEvidence;
  };
  const mirror: Rigid = { ...IDENTITY, rows: [[-1, 0, 0], IDENTITY.rows[1], IDENTITY.rows[2]] };
  it.each(fewer(exercises, 3, 4))("%s: its mirror image, turned", (name, exercise) => {
    const e = shapeOf(exercise, (s) => placed(kernel, placed(kernel, s, mirror), anyMotion(3)));
    // most parts are their own mirror images
    expect(e.finding).toBe(HANDED.has(name) ? "mirrored" : "same");
  });
  it.each(fewer(exercises, 3, 5))("%s: of another size", (_, exercise) => {
    for (const scale of [25.4, 1.01]) {
      const e = shapeOf(exercise, (s) => scaled(kernel, s, scale));
      expect([e.finding, e.verdict]).toEqual(["scaled", "missed"]);
      expect(e.scale).toBeCloseTo(scale, 6);
    }
  });
});
