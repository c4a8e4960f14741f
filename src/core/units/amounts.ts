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

/** A mass for reading. @param g grams @param unit left out: g, from ten kilograms on kg */
export function massText(g: number, unit?: MassUnit): string {
  if (!unit) return g >= 10000 ? `${plainNumber(g / 1000, 3)} kg` : `${plainNumber(g, 2)} g`;
  const [grams, digits] = MASSES[unit];
  return `${plainNumber(g / grams, digits)} ${unit}`;
}
/** A volume for reading, in the document's unit. @param mm3 cubic millimetres */
export const volumeText = (mm3: number, unit: LengthUnit): string =>
  unit === "mm" ? `${plainNumber(mm3, 1)} mm³` : `${plainNumber(mm3 / 16387.064, 4)} in³`;
/** A share as per cent. */
export const percentText = (share: number): string => `${plainNumber(share * 100, Math.abs(share) < 0.001 ? 4 : 2)} %`;
