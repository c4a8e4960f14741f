import { plainNumber, type LengthUnit } from "./quantity";

export type MassUnit = "g" | "kg" | "lb" | "oz";
/** Grams per unit; pound and ounce avoirdupois (NIST SP 811), and the decimals they are lettered with. */
const MASSES: Record<MassUnit, readonly [grams: number, digits: number]> = {
  g: [1, 2],
  kg: [1000, 4],
  lb: [453.59237, 4],
  oz: [28.349523125, 3],
};
export const MASS_UNITS = Object.keys(MASSES) as [MassUnit, ...MassUnit[]];

/** How a mass is lettered: grams per unit, digits after the point, the unit. */
function lettering(g: number, unit?: MassUnit): readonly [grams: number, digits: number, unit: MassUnit] {
  if (unit) return [...MASSES[unit], unit];
  // what would be lettered 10,000.00 g is lettered in kilograms
  return g >= 9999.995 ? [1000, 3, "kg"] : [1, 2, "g"];
}

/** A mass for reading. @param g grams @param as left out: g, from ten kilograms on kg */
export function massText(g: number, as?: MassUnit): string {
  const [grams, digits, unit] = lettering(g, as);
  return `${plainNumber(g / grams, digits)} ${unit}`;
}
/** The mass that `massText` letters, in grams: what is behind the last digit shown is gone. */
export function massAsLettered(g: number, as?: MassUnit): number {
  const [grams, digits] = lettering(g, as);
  return (Math.round((g / grams) * 10 ** digits) / 10 ** digits) * grams;
}
/** A volume for reading, in the document's unit. @param mm3 cubic millimetres */
export const volumeText = (mm3: number, unit: LengthUnit): string =>
  unit === "mm" ? `${plainNumber(mm3, 1)} mm³` : `${plainNumber(mm3 / 16387.064, 4)} in³`;
/** A share as per cent. */
export const percentText = (share: number): string => `${plainNumber(share * 100, Math.abs(share) < 0.001 ? 4 : 2)} %`;
