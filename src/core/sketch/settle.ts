import { inUnit, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome, type Refusal } from "@/core/units/refusal";
import { conflictSentence } from "./sentences";
import { quantityOf, type Dimension, type Sketch } from "./sketch";
import { measureDimension, solveSketch } from "./solve";

/** A change that could be made, but not from how the sketch is drawn: with the sketch as it would then lie. */
export interface NotFromHere extends Refusal {
  readonly elsewhere: Sketch;
}
const NOT_FROM_HERE =
  "These relations can be met, but not from how the sketch is drawn. Draw it nearer to what you mean, or let " +
  "it be drawn so.";

/** Solves after a change; refuses what cannot be met and says which relations disagree. */
export function settle(next: Sketch, unit: LengthUnit, notice?: string): Outcome<Sketch> {
  const r = solveSketch(next, unit);
  if (!r.ok) return r;
  const { solved, conflict, elsewhere } = r.value;
  if (elsewhere)
    return { ok: false, refusal: { ...refuse("not-from-here", NOT_FROM_HERE).refusal, elsewhere } as NotFromHere };
  if (!solved) return refuse("conflict", conflictSentence(next, conflict, unit), conflict);
  return done(refreshReferences(r.value.sketch, unit), notice);
}

/** Reference dimensions show what they measure now. */
function refreshReferences(sketch: Sketch, unit: LengthUnit): Sketch {
  if (!sketch.dimensions.some((d) => d.reference)) return sketch;
  return {
    ...sketch,
    dimensions: sketch.dimensions.map((d) => (d.reference ? { ...d, value: measuredValue(sketch, d, unit) } : d)),
  };
}

/** What a dimension measures, as a value in the document's unit or in degrees, rounded to what is shown. */
export function measuredValue(
  sketch: Sketch,
  d: Pick<Dimension, "kind" | "of" | "flip" | "sides">,
  unit: LengthUnit,
): number {
  const m = measureDimension(sketch, d);
  return quantityOf(d) === "angle" ? Number(((m * 180) / Math.PI).toFixed(6)) : Number(inUnit(m, unit).toFixed(6));
}

/** The same after an edit that may have been refused itself. */
export const settled = (r: Outcome<Sketch>, unit: LengthUnit): Outcome<Sketch> =>
  r.ok ? settle(r.value, unit, r.notice) : r;
