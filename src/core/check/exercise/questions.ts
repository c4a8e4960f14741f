import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf, type PartDocument } from "@/core/part/document";
import { carriersOfSolid } from "@/core/sizes/carriers";
import { drivingNumbers, withSketchesDefined } from "@/core/sizes/numbers";
import { measureSize } from "@/core/sizes/size";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { measurePart } from "../given/measured";
import type { Exercise } from "./exercise";
import type { Question, Wanted } from "./question";

/**
 * Works out the right answer to every question on the reference, changed as the question says.
 * @returns mm, radians, mm², mm³ or g by question; or a refusal that names the question that cannot be answered
 */
export function wantedFigures(kernel: Kernel, exercise: Exercise): Outcome<Wanted> {
  const wanted: Wanted = {};
  for (const q of exercise.questions ?? []) {
    const r = figureOf(kernel, exercise, q);
    if (!r.ok) return r;
    wanted[q.id] = r.value;
  }
  return done(wanted);
}

const lost = (q: Question, why: string) => refuse("bad-question", `“${q.title}” cannot be worked out: ${why}`);

function figureOf(kernel: Kernel, exercise: Exercise, q: Question): Outcome<Wanted[string]> {
  const changed = changedPart(exercise.reference, q);
  if (!changed.ok) return changed;
  const { built, solid, properties } = measurePart(kernel, changed.value);
  try {
    if (!solid || !properties || built.steps.some((s) => s.refusal))
      return lost(q, "the reference cannot be built with these numbers.");
    if (q.asks.what === "mass")
      return done({ value: properties.volume * densityOf(exercise.material), quantity: "mass" });
    if (q.asks.what === "volume" || q.asks.what === "area")
      return done({ value: properties[q.asks.what], quantity: q.asks.what });
    const value = measureSize(q.asks.size, carriersOfSolid(kernel, solid)).find((r) => r !== undefined)?.[0];
    if (!value || value.quantity === "count")
      return lost(q, "the size it asks for is not there any more, or not after the change.");
    return done({ value: value.value, quantity: value.quantity });
  } finally {
    if (solid) kernel.release(solid.shape);
  }
}

/** The reference with the numbers that a question states; what was drawn loosely stands as drawn. */
function changedPart(reference: PartDocument, q: Question): Outcome<PartDocument> {
  if (!q.after?.length) return done(reference);
  let document = withSketchesDefined(reference);
  for (const { number, value } of q.after) {
    const found = drivingNumbers(document).find((n) => n.id === number);
    if (!found) return lost(q, "the reference no longer has the number it changes.");
    document = found.give(value);
  }
  return done(document);
}
