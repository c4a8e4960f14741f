import type { Rigid } from "@/core/geometry/rigid";
import type { Kernel } from "@/core/kernel/opencascade";
import { placed, scaled } from "@/core/kernel/place";
import type { Solid } from "@/core/kernel/solid";
import type { PartDocument } from "@/core/part/document";
import { withStep } from "@/core/part/commands";
import { stepCalled } from "@/core/part/numbers";
import { isSolidStep, titleOf } from "@/core/part/steps/kinds";
import { drivingNumbers } from "@/core/sizes/numbers";
import { angleText, inUnit, lengthText } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { checkMeasured, checkSubmission, type CheckOptions, type Report } from "./check";
import type { Exercise } from "./exercise/exercise";
import { expectedName } from "./kinds/ways/kind";
import { measurePart, measureSolid } from "./given/measured";
import { References } from "./references";

interface Mistake {
  readonly label: string;
  readonly document: PartDocument;
}

/** So many wrong numbers and steps left out are tried at most. */
const MOST_NUMBERS = 12;
const MOST_STEPS = 4;
/** A number read wrong is off by so much. */
const MISREAD = 1.1;

/** Typical mistakes in building a part: each number misread, a step left out, a loose sketch. */
export function typicalMistakes(d: PartDocument): Mistake[] {
  const numbers = drivingNumbers(d).filter((n) => n.value !== 0);
  const stride = Math.max(1, Math.ceil(numbers.length / MOST_NUMBERS));
  const misread = numbers
    .filter((_, i) => i % stride === 0)
    .map((n): Mistake => {
      const text = (v: number) => (n.quantity === "angle" ? angleText(v) : lengthText(v, d.units));
      const wrong = n.value * MISREAD;
      return { label: `${calledIn(d, n)}: ${text(wrong)} instead of ${text(n.value)}`, document: n.give(wrong) };
    });
  const solid = d.steps.flatMap((s, i) => (s.suppressed || !isSolidStep(s) ? [] : [i])).slice(1);
  const leftOut = solid.slice(-MOST_STEPS).map((i): Mistake => ({
    label: `Step ${i + 1} (${titleOf(d.steps[i]!)}) left out`,
    document: withStep(d, { ...d.steps[i]!, suppressed: true }),
  }));
  const first = d.steps.findIndex((s) => s.kind === "sketch" && s.sketch.dimensions.length > 0);
  const loose = first < 0 ? [] : [{ label: `Step ${first + 1}: a dimension forgotten`, document: loosened(d, first) }];
  return [...misread, ...leftOut, ...loose];
}

/** A number by the step it stands in, never by the step's id. */
export function calledIn(d: PartDocument, { label, step }: { label: string; step: string | undefined }): string {
  const at = d.steps.findIndex((s) => s.id === step);
  if (at < 0 || !label.startsWith(`${step}: `)) return label;
  return `${stepCalled(d, at)}${label.slice(step!.length)}`;
}

function loosened(d: PartDocument, at: number): PartDocument {
  const step = d.steps[at]!;
  if (step.kind !== "sketch") return d;
  return withStep(d, { ...step, sketch: { ...step.sketch, dimensions: step.sketch.dimensions.slice(0, -1) } });
}

const MIRRORED = "Built as its mirror image";
const MIRROR: Rigid = {
  rows: [
    [-1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  shift: [0, 0, 0],
};

/** What checks of the reference and of parts with one mistake each find. */
export interface TriedMistakes {
  readonly reference: Report;
  readonly mistakes: readonly { readonly label: string; readonly report: Report }[];
}

/** Checks the reference, and parts with one typical mistake each. @param tell is told how far it is */
export function tryMistakes(
  kernel: Kernel,
  exercise: Exercise,
  tell: (what: string) => void = () => {},
  references = new References(kernel, 1),
): Outcome<TriedMistakes> {
  const options: CheckOptions = { references, answers: rightAnswers(exercise) };
  const right = named(exercise);
  const own = checkSubmission(kernel, exercise, right, options);
  if (!own.ok) return own;
  const mistakes: { label: string; report: Report }[] = [];
  const all = typicalMistakes(right);
  for (const [i, { label, document }] of all.entries()) {
    tell(`mistake ${i + 1} of ${all.length + 2}`);
    const r = checkSubmission(kernel, exercise, document, options);
    // a mistake that builds nothing tells nothing
    if (r.ok) mistakes.push({ label, report: r.value.report });
  }
  const shaped = (change: (solid: Solid) => Solid) =>
    checkMeasured(kernel, exercise, () => changedPart(kernel, right, change), options);
  tell(`mistake ${all.length + 1} of ${all.length + 2}`);
  const other = right.units === "mm" ? "in" : "mm";
  const times = other === "in" ? 1 / inUnit(1, "in") : inUnit(1, "in");
  const unit = shaped((solid) => scaled(kernel, solid, times));
  if (unit.ok)
    mistakes.push({
      label: `Numbers typed in ${UNIT_NAMES[other]} instead of ${UNIT_NAMES[right.units]}`,
      report: unit.value.report,
    });
  tell(`mistake ${all.length + 2} of ${all.length + 2}`);
  const mirrored = shaped((solid) => placed(kernel, solid, MIRROR));
  // many a part is its own mirror image: then there is no mistake
  const isMistake =
    mirrored.ok && mirrored.value.report.evidence.some((e) => e.check === "shape" && e.finding !== "same");
  if (isMistake) mistakes.push({ label: MIRRORED, report: mirrored.value.report });
  return done({ reference: own.value.report, mistakes });
}

const UNIT_NAMES = { mm: "mm", in: "inches" };

/** The reference as somebody would hand it in who keeps to the rule of names. */
function named(exercise: Exercise): PartDocument {
  const rule = exercise.rubric.flatMap((l) => (l.rule?.way === "names" && l.rule.part ? [l.rule.part] : []))[0];
  const { number, title, reference, material } = exercise;
  const name = rule ? expectedName(rule, { number, title, initials: "" }) : reference.name;
  return { ...reference, name, material };
}

/** The reference built, and changed as a whole. */
function changedPart(kernel: Kernel, document: PartDocument, change: (solid: Solid) => Solid) {
  const { solid, built } = measurePart(kernel, document);
  if (!solid) return refuse("no-part", "The reference cannot be built.");
  const image = change(solid);
  kernel.release(solid.shape);
  return done({ ...measureSolid(kernel, image), document, built });
}

/** What somebody types who has everything right. */
const rightAnswers = ({ wanted = {} }: Exercise) =>
  Object.fromEntries(Object.entries(wanted).map(([id, w]) => [id, `${w.value} ${PLAIN_UNITS[w.quantity]}`]));
const PLAIN_UNITS = { length: "mm", angle: "rad", area: "mm²", volume: "mm³", mass: "g" } as const;
