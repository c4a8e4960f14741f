import { type Vec3, vec3 } from "@/core/geometry/vector";
import { drivingNumbers, withSketchesDefined, type DrivingNumber } from "@/core/sizes/numbers";
import { generalFor } from "@/core/sizes/general";
import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { generalOf } from "@/core/sheet/subject";
import type { Exercise } from "./exercise";
import type { CheckedFigure, FiguresEvidence } from "../kinds/figures/kind";
import { ALIKE, COPIED, OWN_NUMBER_STEP, WHOLE_STEPS } from "../tolerance";
import type { Varying } from "./varying";

/** What one student's part is made with: driving numbers of the reference by their ids, mm or radians. */
export type OwnNumbers = readonly { readonly number: string; readonly value: number }[];

/** A number that varies takes so many values at most. */
const MOST_VALUES = 400;

/** The values that a number may take, each once. mm or radians. */
export function valuesOf({ values }: Varying): readonly number[] {
  if ("of" in values) return [...new Set(values.of)];
  const { from, to, step } = values;
  const count = Math.min(MOST_VALUES, Math.floor((to - from) / step + WHOLE_STEPS) + 1);
  return Array.from({ length: Math.max(0, count) }, (_, i) => Number((from + i * step).toPrecision(12)));
}

/** How many different parts an exercise's own numbers give. */
export const differentParts = ({ varies = [] }: Pick<Exercise, "varies">): number =>
  varies.length ? varies.reduce((n, v) => n * valuesOf(v).length, 1) : 0;

/** Same text, same number: FNV-1a, 32 bits. */
function hashed(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return hash;
}

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);

/**
 * The numbers at a place in the row of all different parts. Neighbours in the row differ in much: places are stepped
 * through by a golden share of the whole.
 * @param seed another row for another text: a handout's id
 * @param place counted from 0
 * @returns undefined past the end of the row
 */
export function ownNumbersAt(exercise: Pick<Exercise, "varies">, seed: string, place: number): OwnNumbers | undefined {
  const all = differentParts(exercise);
  if (place < 0 || place >= all) return undefined;
  let stride = Math.max(1, Math.round(all * 0.618));
  while (gcd(stride, all) !== 1) stride++;
  // as whole numbers beyond 2^53 would lose digits
  let rest = Number((BigInt(place) * BigInt(stride) + BigInt(hashed(seed))) % BigInt(all));
  return exercise.varies!.map((v) => {
    const values = valuesOf(v);
    const value = values[rest % values.length]!;
    rest = Math.floor(rest / values.length);
    return { number: v.number, value };
  });
}

/** The numbers of a reference that may vary: those it is driven by, loose sketches standing as drawn. */
export const numbersThatMayVary = (e: Pick<Exercise, "reference">): readonly DrivingNumber[] =>
  drivingNumbers(withSketchesDefined(e.reference));

/**
 * The exercise as one student has it: its reference with their numbers. Right answers to its questions are left to be
 * worked out on that.
 */
export function withOwnNumbers(exercise: Exercise, own: OwnNumbers): Outcome<Exercise> {
  const { wanted: _, ...rest } = exercise;
  let reference = withSketchesDefined(exercise.reference);
  for (const { number, value } of own) {
    const found = drivingNumbers(reference).find((n) => n.id === number);
    if (!found)
      return refuse("no-number", "The reference no longer has a number that differs from student to student.");
    reference = found.give(value);
  }
  return done({ ...rest, reference });
}

/** "36 · 12 mm · 15°": own numbers in the order they vary. @param known numbers of the reference */
export function ownNumbersText(own: OwnNumbers, known: readonly DrivingNumber[], units: LengthUnit): string {
  const texts = own.map(({ number, value }) =>
    known.find((n) => n.id === number)?.quantity === "angle" ? angleText(value) : lengthText(value, units),
  );
  // the unit stands once behind what it is of
  const unit = ` ${units}`;
  return texts
    .map((t, i) => (t.endsWith(unit) && texts[i + 1]?.endsWith(unit) ? t.slice(0, -unit.length) : t))
    .join(" · ");
}

/**
 * Whether own numbers can be given: every number is there, and its values lie so far apart that a part with another's
 * is told from the right one.
 * @param known the numbers of its reference that may vary, where they are known already
 * @returns how many different parts they give
 */
export function checkVarying(
  exercise: Exercise,
  known: readonly DrivingNumber[] = numbersThatMayVary(exercise),
): Outcome<number> {
  const general = generalOf(exercise);
  for (const v of exercise.varies ?? []) {
    const n = known.find((k) => k.id === v.number);
    if (!n) return refuse("no-number", "Own numbers: one of them is not in the reference any more. Choose another.");
    const text = (x: number) => (n.quantity === "angle" ? angleText(x) : lengthText(x, exercise.units));
    const values = [...valuesOf(v)].sort((a, b) => a - b);
    if (values.length < 2) return refuse("one-value", `Own numbers: ${n.label} has one value only. Give at least two.`);
    for (const [i, value] of values.entries()) {
      if (!i) continue;
      const gap = value - values[i - 1]!;
      const least = OWN_NUMBER_STEP * generalFor(n.quantity, Math.abs(value), general, Math.abs(value));
      if (gap >= least) continue;
      return refuse(
        "too-near",
        `Own numbers: ${n.label} has ${text(values[i - 1]!)} and ${text(value)}, which the tolerance cannot tell ` +
          `apart. Values must lie at least ${text(least)} apart.`,
      );
    }
  }
  return done(differentParts(exercise));
}

/** What tells one part from another however it lies: surface area, mm², and principal moments of volume, mm⁵. */
export interface Signature {
  readonly area: number;
  readonly moments: Vec3;
}

/** Whether two parts are the same, or mirror images: then a copy of the one passes as the other. */
export function isAlike(a: Signature, b: Signature, within = ALIKE): boolean {
  const near = (x: number, y: number) => Math.abs(x - y) <= within * Math.max(Math.abs(x), Math.abs(y));
  return near(a.area, b.area) && a.moments.every((m, i) => near(m, b.moments[i]!));
}

/**
 * Whose Sheet a part was built from, where it is not the student's own.
 * @param others parts of other students of the handout
 * @returns the index of one of them, or undefined: the part is right, or wrong in a way of its own
 */
export function builtFrom(
  evidence: FiguresEvidence | undefined,
  own: Signature,
  others: readonly Signature[],
): number | undefined {
  const measured = (what: CheckedFigure["what"]) =>
    (evidence?.figures ?? []).filter((f) => f.what === what).map((f) => f.measured);
  const [area] = measured("surface area");
  const [first, second, third] = measured("principal moment");
  if (area === undefined || first === undefined || second === undefined || third === undefined) return undefined;
  const part: Signature = { area, moments: vec3(first, second, third) };
  if (isAlike(part, own, COPIED)) return undefined;
  const found = others.findIndex((o) => isAlike(part, o, COPIED));
  return found < 0 ? undefined : found;
}
