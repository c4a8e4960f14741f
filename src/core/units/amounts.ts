import { plainNumber, type LengthUnit } from "./quantity";
import { done, refuse, type Outcome } from "./refusal";

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
/** An area for reading, in the document's unit. @param mm2 square millimetres */
export const areaText = (mm2: number, unit: LengthUnit): string =>
  unit === "mm" ? `${plainNumber(mm2, 1)} mm²` : `${plainNumber(mm2 / MM_PER_INCH ** 2, 4)} in²`;

/** A moment of inertia for reading. @param mm5 of the volume, mm⁵ @param density g/mm³ */
export const momentText = (mm5: number, density: number): string => `${plainNumber((mm5 * density) / 1000, 3)} kg·mm²`;

const MM_PER_INCH = 25.4;
/** Units that amounts are typed in, and what one is in g, mm² or mm³. */
const AMOUNTS = {
  mass: { g: 1, kg: 1000, lb: 453.59237, lbs: 453.59237, oz: 28.349523125, t: 1_000_000 },
  area: { mm: 1, cm: 100, m: 1_000_000, in: MM_PER_INCH ** 2 },
  volume: { mm: 1, cm: 1000, m: 1_000_000_000, in: MM_PER_INCH ** 3, ml: 1000, l: 1_000_000 },
} as const satisfies Record<string, Record<string, number>>;
const POWER = { mass: "", area: "2", volume: "3" } as const;

/**
 * Reads an amount as a person types it: `231.4`, `0.231 kg`, `12 450,5 mm³`, `1.2e4 mm^3`.
 * @param plain the unit of a number without one
 * @returns g, mm² or mm³, or a refusal that says what is wrong
 */
export function readAmount(typed: string, of: keyof typeof AMOUNTS, plain: MassUnit | LengthUnit): Outcome<number> {
  const text = typed.trim().replace(/²/g, "2").replace(/³/g, "3").replace(/\^/g, "").replace(/[−–]/g, "-");
  const [, digits, unit] = /^([-+]?[\d\s\u202f'’.,]*\d(?:[eE][-+]?\d+)?)\s*([a-zA-Z]+[23]?)?$/.exec(text) ?? [];
  const n = digits === undefined ? Number.NaN : Number(plainDecimal(digits.replace(/[\s\u202f'’]/g, "")));
  if (!Number.isFinite(n)) return refuse("bad-number", `“${typed}” is no number.`);
  const units: Record<string, number> = AMOUNTS[of],
    power = POWER[of];
  if (unit === undefined) return done(n * units[plain]!);
  const bare = unit.endsWith(power) ? unit.slice(0, unit.length - power.length).toLowerCase() : unit.toLowerCase();
  const isLiquid = bare === "l" || bare === "ml";
  const factor = unit.endsWith(power) || isLiquid ? units[bare] : undefined;
  if (factor === undefined)
    return refuse("bad-number", `“${unit}” is no unit of ${of === "area" ? "an area" : `a ${of}`}.`);
  return done(n * factor);
}

/** A number with a decimal comma, or with marks between its thousands, as the language of numbers has it. */
function plainDecimal(digits: string): string {
  const [comma, point] = [digits.lastIndexOf(","), digits.lastIndexOf(".")];
  const mark = comma > point ? "," : ".",
    other = mark === "," ? "." : ",";
  // the last mark is the decimal one, unless it stands several times: then it parts thousands
  const isAlone = digits.indexOf(mark) === digits.lastIndexOf(mark);
  const [whole, rest] = isAlone ? digits.split(mark) : [digits];
  const parts = whole!.split(isAlone ? other : mark);
  const isGrouped = parts.slice(1).every((p) => /^\d{3}$/.test(p));
  return isGrouped ? parts.join("") + (rest === undefined ? "" : `.${rest}`) : "no number";
}
