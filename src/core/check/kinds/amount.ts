import { NO_DIFFERENCE, ON_THE_LIMIT } from "../tolerance";
import { z } from "zod";
import { percentText } from "@/core/units/amounts";
import { VerdictSchema, type Verdict } from "./kind";

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
}

export const amountEvidence = <K extends "volume" | "mass">(check: K): z.ZodType<AmountEvidence<K>> =>
  z.strictObject({
    check: z.literal(check),
    verdict: VerdictSchema,
    wanted: z.number(),
    measured: z.number(),
    tolerance: z.number(),
    off: z.number(),
  });

export function compareAmounts<K extends "volume" | "mass">(
  check: K,
  measured: number,
  wanted: number,
  tolerance: number,
): AmountEvidence<K> {
  const off = Math.abs(measured - wanted) / wanted;
  return { check, verdict: off <= tolerance + ON_THE_LIMIT ? "met" : "missed", wanted, measured, tolerance, off };
}

type Amount = AmountEvidence<"volume"> | AmountEvidence<"mass">;
export function amountToInstructor(e: Amount, text: (v: number) => string): string {
  const sign = e.measured > e.wanted ? "+" : "−";
  const off = e.off > NO_DIFFERENCE ? ` (off by ${sign}${percentText(e.off)})` : "";
  return `${text(e.measured)}, wanted ${text(e.wanted)} ± ${percentText(e.tolerance)}${off}.`;
}
export function amountToStudent(e: Amount, text: (v: number) => string, isPrinted: boolean): string {
  const verdict = e.verdict === "met" ? "within tolerance" : "outside the tolerance";
  const target = isPrinted ? `, the Sheet gives ${text(e.wanted)} ± ${percentText(e.tolerance)}` : "";
  return `${text(e.measured)}${target}: ${verdict}.`;
}
