import { z } from "zod";
import { begun } from "@/core/naming/words";
import { letteredLength } from "@/core/sizes/lettering";
import { percentText } from "@/core/units/amounts";
import type { LengthUnit } from "@/core/units/quantity";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";

/** One figure of the whole part against the reference's. mm, mm², mm⁵ (moments of volume). */
export interface CheckedFigure {
  readonly what: "surface area" | "length over all" | "principal moment" | "centre of mass";
  readonly wanted: number;
  readonly measured: number;
  /** Share of the wanted, or mm for the centre. */
  readonly off: number;
  readonly tolerance: number;
}
export interface FiguresEvidence {
  readonly check: "figures";
  readonly verdict: Verdict;
  /** How many figures are outside. */
  readonly off: number;
  readonly figures: readonly CheckedFigure[];
}

export const figuresKind: CheckKind<FiguresEvidence> = {
  evidence: z.strictObject({
    check: z.literal("figures"),
    verdict: VerdictSchema,
    off: z.number(),
    figures: z.array(
      z.strictObject({
        what: z.enum(["surface area", "length over all", "principal moment", "centre of mass"]),
        wanted: z.number(),
        measured: z.number(),
        off: z.number(),
        tolerance: z.number(),
      }),
    ),
  }),
  toInstructor: (e, { units }) => told(e, (f) => `${f.what} ${amount(f, units)}`),
  // the drawing prints none of them
  toStudent: (e) => told(e, (f) => `the ${f.what} is ${f.measured > f.wanted ? "too large" : "too small"}`),
  items: (e) => ({ right: e.figures.length - Math.min(e.off, e.figures.length), of: e.figures.length }),
  limit: { unit: "figures wrong", isShare: false },
  start: { title: "Figures of the whole", points: 0, limit: 3 },
};

function told(e: FiguresEvidence, text: (f: CheckedFigure) => string): string {
  if (!e.figures.length) return "There is no solid to measure.";
  const wrong = e.figures.filter((f) => f.off > f.tolerance);
  if (!wrong.length) return `All ${e.figures.length} figures are within tolerance.`;
  return `${begun([...new Set(wrong.map(text))].join("; "))}.`;
}

function amount(f: CheckedFigure, unit: LengthUnit): string {
  if (f.what === "centre of mass") return `lies ${letteredLength(f.off, { unit })} ${unit} off`;
  return `off by ${f.measured > f.wanted ? "+" : "−"}${percentText(f.off)}, allowed ${percentText(f.tolerance)}`;
}
