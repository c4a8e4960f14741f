import { isSameMaterial } from "../mass/check";
import type { CheckContext } from "../context";
import type { MaterialEvidence } from "./kind";

/** Whether the part is of the material that the exercise asks for: of its density, and by name where that is asked. */
export function checkMaterial({ exercise, submission }: CheckContext): MaterialEvidence {
  const asked = exercise.material,
    given = submission.document?.material;
  if (!given) return { check: "material", verdict: "unknown", off: 0, asked };
  const isMet = isSameMaterial(given, asked, exercise.materialByName === true);
  return { check: "material", verdict: isMet ? "met" : "missed", off: isMet ? 0 : 1, asked, given };
}
