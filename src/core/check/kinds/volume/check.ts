import { onlyFreeDiffers } from "../../free";
import { compareAmounts } from "../amount";
import type { CheckContext } from "../context";

/** Volume against the reference's, mm³. */
export const checkVolume = (context: CheckContext) => {
  const { exercise, reference, submission } = context;
  const measured = submission.properties?.volume ?? 0;
  return compareAmounts("volume", measured, reference.properties.volume, exercise.tolerances.volume, {
    ...scaleOf(context),
    ...freedomOf(context),
  });
};

/** Where only what is left free differs, the amount says nothing. */
export const freedomOf = (context: CheckContext): { free?: true } => (onlyFreeDiffers(context) ? { free: true } : {});

/** Of a part that has the right form at the wrong size, how large it is. */
export const scaleOf = ({ comparison }: CheckContext): { scale?: number } =>
  comparison.finding === "scaled" ? { scale: comparison.scale } : {};
