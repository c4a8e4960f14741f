import { plainNumber, type LengthUnit } from "./quantity";

/** A mass for reading. @param g grams */
export const massText = (g: number): string =>
  g >= 10000 ? `${plainNumber(g / 1000, 3)} kg` : `${plainNumber(g, 2)} g`;
/** A volume for reading, in the document's unit. @param mm3 cubic millimetres */
export const volumeText = (mm3: number, unit: LengthUnit): string =>
  unit === "mm" ? `${plainNumber(mm3, 1)} mm³` : `${plainNumber(mm3 / 16387.064, 4)} in³`;
/** A share as per cent. */
export const percentText = (share: number): string => `${plainNumber(share * 100, Math.abs(share) < 0.001 ? 4 : 2)} %`;
