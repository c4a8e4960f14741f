import { NO_DIFFERENCE, ON_THE_LIMIT } from "../tolerance";
import { z } from "zod";
import { percentText } from "@/core/units/amounts";
import { VerdictSchema, type Verdict } from "./kind";
import { plainText } from "@/core/units/text";

/** An amount against the one wanted. */
export interface AmountEvidence<K extends "volume" | "mass"> {
  readonly check: K;
  readonly verdict: Verdict;
  /** mm³ or g. */
  readonly wanted: number;
  readonly measured: number;
  /** Share of the wanted. */
  readonly tolerance: number;
  /** |measured − wanted| / wanted. */
  readonly off: number;
  /** The whole part is so many times too large, from which the rest follows. */
  readonly scale?: number | undefined;
  /** Nothing differs but what the exercise leaves free. */
  readonly free?: true | undefined;
  /** Of a mass: the part's material where it is not the exercise's. */
  readonly material?: { readonly given: string; readonly asked: string; readonly sameDensity: boolean } | undefined;
}

export const amountEvidence = <K extends "volume" | "mass">(check: K): z.ZodType<AmountEvidence<K>> =>
  z.strictObject({
    check: z.literal(check),
    verdict: VerdictSchema,
    wanted: z.number(),
    measured: z.number(),
    tolerance: z.number(),
    off: z.number(),
    scale: z.number().optional(),
    free: z.literal(true).optional(),
    material: z.strictObject({ given: plainText(), asked: plainText(), sameDensity: z.boolean() }).optional(),
  });

export function compareAmounts<K extends "volume" | "mass">(
  check: K,
  measured: number,
  wanted: number,
  tolerance: number,
  more: Pick<AmountEvidence<K>, "scale" | "material" | "free"> = {},
): AmountEvidence<K> {
  const off = Math.abs(measured - wanted) / wanted;
  const isInside = more.free === true || off <= tolerance + ON_THE_LIMIT;
  const isMet = isInside && more.material?.sameDensity !== false;
  return { check, verdict: isMet ? "met" : "missed", wanted, measured, tolerance, off, ...more };
}

/** What is told of a part that is wrong as a whole: once, not in every line. */
const follows = (e: Amount, text: (v: number) => string): string =>
  `${text(e.measured)}: follows from the size of the whole part.`;

/** Another material by name, or by density. */
function materialText({ material }: Amount): string {
  if (!material) return "";
  const { given, asked, sameDensity } = material;
  return sameDensity
    ? ` The part calls its material “${given}”, the Sheet “${asked}”: the same density.`
    : ` The part is made of “${given}”; the Sheet asks for “${asked}”.`;
}

/** How far off in words: beyond ten times a number says nothing. */
const offText = (e: Amount): string => {
  const sign = e.measured > e.wanted ? "+" : "−";
  return e.off > MANY_TIMES ? "more than ten times too much" : `off by ${sign}${percentText(e.off)}`;
};
const MANY_TIMES = 10;

type Amount = AmountEvidence<"volume"> | AmountEvidence<"mass">;
export function amountToInstructor(e: Amount, text: (v: number) => string): string {
  if (e.scale !== undefined) return follows(e, text);
  const off = e.off > NO_DIFFERENCE ? ` (${offText(e)})` : "";
  return `${text(e.measured)}, wanted ${text(e.wanted)} ± ${percentText(e.tolerance)}${off}.${materialText(e)}`;
}
export function amountToStudent(e: Amount, text: (v: number) => string, isPrinted: boolean): string {
  if (e.scale !== undefined) return follows(e, text);
  const isInside = e.free || e.off <= e.tolerance + ON_THE_LIMIT;
  const verdict = isInside ? "within tolerance" : "outside the tolerance";
  const target = isPrinted ? `, the Sheet gives ${text(e.wanted)} ± ${percentText(e.tolerance)}` : "";
  return `${text(e.measured)}${target}: ${verdict}.${materialText(e)}`;
}
