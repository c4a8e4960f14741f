import { densityOf } from "@/core/part/document";
import type { CheckContext, Measured, Verdict } from "./kind";

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

function compare<K extends "volume" | "mass">(
  check: K,
  context: CheckContext,
  read: (m: Measured) => number,
): AmountEvidence<K> {
  const wanted = read(context.reference),
    measured = read(context.submission);
  const tolerance = context.exercise.tolerances[check];
  const off = Math.abs(measured - wanted) / wanted;
  // a part exactly on the limit is inside it
  return { check, verdict: off <= tolerance + 1e-9 ? "met" : "missed", wanted, measured, tolerance, off };
}

/** Volume against the reference's, mm³. */
export const checkVolume = (c: CheckContext) => compare("volume", c, (m) => m.properties?.volume ?? 0);
/** Mass against the reference's, g, each with the density its own document states. */
export const checkMass = (c: CheckContext) =>
  compare("mass", c, (m) => (m.properties?.volume ?? 0) * densityOf(m.document.material));
