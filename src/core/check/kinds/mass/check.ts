import { densityOf } from "@/core/part/document";
import { compareAmounts } from "../amount";
import type { CheckContext } from "../context";

/** Mass, g: of the reference's volume in the exercise's material, which the Sheet prints; the part in its own. */
export function checkMass({ exercise, reference, submission }: CheckContext) {
  const measured = (submission.properties?.volume ?? 0) * densityOf(submission.document.material);
  const wanted = reference.properties.volume * densityOf(exercise.material);
  return compareAmounts("mass", measured, wanted, exercise.tolerances.mass);
}
