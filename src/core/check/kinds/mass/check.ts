import { densityOf, type Material } from "@/core/part/document";
import { SAME_DENSITY } from "../../tolerance";
import { compareAmounts, type AmountEvidence } from "../amount";
import type { CheckContext } from "../context";
import { freedomOf, openOf, scaleOf } from "../volume/check";

/**
 * Mass, g: of the reference's volume in the exercise's material, which the Sheet prints; the part in its own. Where
 * that is not as heavy the line is missed, whatever its volume: two wrongs make no right mass.
 */
export function checkMass(context: CheckContext) {
  const { exercise, reference, submission } = context;
  const asked = exercise.material,
    given = submission.document?.material ?? asked;
  const measured = (submission.properties?.volume ?? 0) * densityOf(given);
  const wanted = reference.properties.volume * densityOf(asked);
  const material = materialOf(given, asked, exercise.materialByName === true);
  return compareAmounts("mass", measured, wanted, exercise.tolerances.mass + openOf(context), {
    ...scaleOf(context),
    ...freedomOf(context),
    ...(material && { material }),
  });
}

function materialOf(given: Material, asked: Material, byName: boolean): AmountEvidence<"mass">["material"] {
  if (isSameMaterial(given, asked, true)) return undefined;
  return { given: given.name, asked: asked.name, sameDensity: isSameMaterial(given, asked, byName) };
}

/** Of the same density, and called the same where that counts. */
export function isSameMaterial(given: Material, asked: Material, byName: boolean): boolean {
  const isCalledSame = given.name.trim().toLowerCase() === asked.name.trim().toLowerCase();
  return Math.abs(given.density / asked.density - 1) <= SAME_DENSITY && (isCalledSame || !byName);
}
