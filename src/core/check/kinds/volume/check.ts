import { compareAmounts } from "../amount";
import type { CheckContext } from "../context";

/** Volume against the reference's, mm³. */
export const checkVolume = ({ exercise, reference, submission }: CheckContext) =>
  compareAmounts("volume", submission.properties?.volume ?? 0, reference.properties.volume, exercise.tolerances.volume);
