import { z } from "zod";
import type { Size } from "./kinds/kinds";
import type { SizeValue } from "./kinds/kind";
import { PRINTED_ANGLE, PRINTED_LENGTH } from "./tolerance";

/** How far sizes without a tolerance of their own may be off: a class of ISO 2768-1, or one figure for all. */
export const GeneralToleranceSchema = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("iso"), class: z.enum(["f", "m", "c", "v"]) }),
  /** mm and radians. */
  z.strictObject({ by: z.literal("plain"), length: z.number().positive(), angle: z.number().positive() }),
]);
export type GeneralTolerance = z.infer<typeof GeneralToleranceSchema>;

type Class = "f" | "m" | "c" | "v";
/** Where nothing is said: as printed, but for what typing a number and reading it back may change. */
export const AS_PRINTED: GeneralTolerance = { by: "plain", length: PRINTED_LENGTH, angle: PRINTED_ANGLE };

/** The class of ISO 2768 that words name: "ISO 2768-m", "general tolerances ISO 2768 - mK". */
export function classNamed(words: string): GeneralTolerance | undefined {
  const read = /ISO\s*2768\s*[-–—]?\s*(?:1\s*[-–—]?\s*)?([fmcv])(?![a-z])/.exec(words);
  return read ? { by: "iso", class: read[1] as Class } : undefined;
}

/** ISO 2768-1 table 1: up to so many mm, then ± for fine, medium, coarse, very coarse; mm. */
const LINEAR: readonly (readonly [upTo: number, f: number, m: number, c: number, v: number])[] = [
  [3, 0.05, 0.1, 0.2, 0.5],
  [6, 0.05, 0.1, 0.3, 0.5],
  [30, 0.1, 0.2, 0.5, 1],
  [120, 0.15, 0.3, 0.8, 1.5],
  [400, 0.2, 0.5, 1.2, 2.5],
  [1000, 0.3, 0.8, 2, 4],
  [2000, 0.5, 1.2, 3, 6],
  [Infinity, 0.5, 2, 4, 8],
];
/** Table 2: roundings and chamfers. */
const BROKEN: typeof LINEAR = [
  [3, 0.2, 0.2, 0.4, 0.4],
  [6, 0.5, 0.5, 1, 1],
  [Infinity, 1, 1, 2, 2],
];
/** Table 3: angles by the length of the shorter leg; degrees. */
const ANGLES: typeof LINEAR = [
  [10, 1, 1, 1.5, 3],
  [50, 1 / 2, 1 / 2, 1, 2],
  [120, 1 / 3, 1 / 3, 1 / 2, 1],
  [400, 1 / 6, 1 / 6, 1 / 4, 1 / 2],
  [Infinity, 1 / 12, 1 / 12, 1 / 6, 1 / 3],
];
const COLUMN: Record<Class, 1 | 2 | 3 | 4> = { f: 1, m: 2, c: 3, v: 4 };
const lookUp = (table: typeof LINEAR, value: number, c: Class): number =>
  table.find(([upTo]) => value <= upTo)![COLUMN[c]];

/**
 * How far a number of a size may be off either way, mm or radians.
 * @param leg length of the shorter leg of angles, mm
 */
export function toleranceOf(
  size: Size,
  v: SizeValue,
  general: GeneralTolerance,
  leg: number,
): { plus: number; minus: number } {
  if (size.tolerance) return size.tolerance;
  if (v.quantity === "count") return { plus: 0, minus: 0 };
  const off = generalFor(v.quantity, v.value, general, leg, size.kind === "radius" || size.kind === "chamfer");
  return { plus: off, minus: off };
}

/** The general tolerance of a length or an angle; mm or radians. */
export function generalFor(
  quantity: "length" | "angle",
  value: number,
  general: GeneralTolerance,
  leg: number,
  isBroken = false,
): number {
  if (general.by === "plain") return quantity === "length" ? general.length : general.angle;
  if (quantity === "angle") return (lookUp(ANGLES, leg, general.class) * Math.PI) / 180;
  return lookUp(isBroken ? BROKEN : LINEAR, value, general.class);
}
