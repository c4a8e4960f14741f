import { plainNumber, inUnit, type LengthUnit } from "@/core/units/quantity";
import { ROUNDED } from "./tolerance";

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

/** A length as it is lettered: inches without a leading zero (ASME Y14.5). @param mm millimetres */
export function letteredLength(mm: number, { unit, digits = DIGITS[unit], fractions }: Lettering): string {
  const value = inUnit(mm, unit);
  if (unit === "mm") return plainNumber(value, digits);
  if (fractions) {
    const parts = Math.round(value * FINEST);
    if (Math.abs(value * FINEST - parts) <= ROUNDED * FINEST) return fraction(parts);
  }
  return plainNumber(value, digits).replace(/^(-?)0\./, "$1.");
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
  `${plainNumber((rad * 180) / Math.PI, digits)}°`;

/** Half a unit of the last digit a number is lettered with: what the print leaves open; mm or radians. */
export function roundingOf(quantity: "length" | "angle", { unit, digits = DIGITS[unit] }: Lettering): number {
  if (quantity === "angle") return (0.5 * 10 ** -ANGLE_DIGITS * Math.PI) / 180;
  return (0.5 * 10 ** -digits) / inUnit(1, unit);
}

/** What a reader of the print types: the value rounded as lettered; mm or radians. */
export function asLettered(value: number, quantity: "length" | "angle" | "count", l: Lettering): number {
  if (quantity === "count") return value;
  const step = 2 * roundingOf(quantity, l);
  return Math.round(value / step) * step;
}

const SIGNS = { counterbore: "⌴", countersink: "⌵", arc: "⌒" };
/** What stands before a number: a sign, or the word. */
export const signOf = (what: keyof typeof SIGNS, l: Lettering): string => `${l.signs ? SIGNS[what] : what} `;
/** A depth behind another number. @param mm millimetres */
export const depthText = (mm: number, l: Lettering): string =>
  l.signs ? ` ↧ ${letteredLength(mm, l)}` : ` ${letteredLength(mm, l)} deep`;
