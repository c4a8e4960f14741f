import { plainNumber, inUnit, type LengthUnit } from "@/core/units/quantity";
import { HALF_HAIR, ROUNDED } from "./tolerance";

/** How numbers stand on a drawing. */
export interface Lettering {
  readonly unit: LengthUnit;
  /** Decimals at most; left out: three in mm, four in inches. */
  readonly digits?: number | undefined;
  /** Inches as halves down to sixty-fourths where they are. */
  readonly fractions?: boolean | undefined;
  /** Signs of ISO 129 and ASME Y14.5 in place of words: only where the font has them. */
  readonly signs?: boolean | undefined;
}

const DIGITS: Record<LengthUnit, number> = { mm: 3, in: 4 };
const FINEST = 64;

/**
 * A value with so many decimals, a half rounded away from nought: 5/64 in is no tie any more once it was converted to
 * millimetres and back, so a hair is added. What is lettered and what is read back both come from here.
 */
function roundedTo(value: number, digits: number): number {
  const steps = Math.abs(value) * 10 ** digits;
  return (Math.sign(value) * Math.floor(steps + 0.5 + HALF_HAIR * Math.max(1, steps))) / 10 ** digits;
}

/** How many sixty-fourths of an inch a length is, where it is lettered as a fraction. */
function partsOf(value: number, { unit, fractions }: Lettering): number | undefined {
  if (unit !== "in" || !fractions) return undefined;
  const parts = Math.round(value * FINEST);
  return Math.abs(value * FINEST - parts) <= ROUNDED * FINEST ? parts : undefined;
}

/** A length as it is lettered: inches without a leading zero (ASME Y14.5). @param mm millimetres */
export function letteredLength(mm: number, l: Lettering): string {
  const value = inUnit(mm, l.unit),
    parts = partsOf(value, l);
  if (parts !== undefined) return fraction(parts);
  const digits = l.digits ?? DIGITS[l.unit],
    text = plainNumber(roundedTo(value, digits), digits);
  return l.unit === "mm" ? text : text.replace(/^(-?)0\./, "$1.");
}

function fraction(parts: number): string {
  let [up, down] = [parts, FINEST];
  while (down > 1 && up % 2 === 0) [up, down] = [up / 2, down / 2];
  const whole = Math.floor(up / down);
  if (down === 1) return String(up);
  return `${whole ? `${whole} ` : ""}${up % down}/${down}`;
}

const ANGLE_DIGITS = 2;
/** An angle as it is lettered. @param rad radians */
export const letteredAngle = (rad: number, digits = ANGLE_DIGITS): string =>
  `${plainNumber(roundedTo((rad * 180) / Math.PI, digits), digits)}°`;

/** Half a unit of the last digit a number is lettered with: what the print leaves open; mm or radians. */
export function roundingOf(quantity: "length" | "angle", { unit, digits = DIGITS[unit] }: Lettering): number {
  if (quantity === "angle") return (0.5 * 10 ** -ANGLE_DIGITS * Math.PI) / 180;
  return (0.5 * 10 ** -digits) / inUnit(1, unit);
}

/** What a reader of the print types: the value as it is lettered; mm or radians. */
export function asLettered(value: number, quantity: "length" | "angle" | "count", l: Lettering): number {
  if (quantity === "count") return value;
  if (quantity === "angle") return (roundedTo((value * 180) / Math.PI, ANGLE_DIGITS) * Math.PI) / 180;
  const shown = inUnit(value, l.unit),
    parts = partsOf(shown, l);
  const lettered = parts === undefined ? roundedTo(shown, l.digits ?? DIGITS[l.unit]) : parts / FINEST;
  return lettered / inUnit(1, l.unit);
}

const SIGNS = { counterbore: "⌴", countersink: "⌵", arc: "⌒" };
/** What stands before a number: a sign, or the word. */
export const signOf = (what: keyof typeof SIGNS, l: Lettering): string => `${l.signs ? SIGNS[what] : what} `;
/** A depth behind another number. @param mm millimetres */
export const depthText = (mm: number, l: Lettering): string =>
  l.signs ? ` ↧ ${letteredLength(mm, l)}` : ` ${letteredLength(mm, l)} deep`;
