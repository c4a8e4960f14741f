import { leftOpen } from "@/core/measure/facet-body";
import { onlyFreeDiffers } from "../../faces/free";
import { compareAmounts } from "../amount";
import type { CheckContext } from "../context";

/** Volume against the reference's, mm³. */
export const checkVolume = (context: CheckContext) => {
  const { exercise, reference, submission } = context;
  const measured = submission.properties?.volume ?? 0;
  const tolerance = exercise.tolerances.volume + openOf(context);
  return compareAmounts("volume", measured, reference.properties.volume, tolerance, {
    ...scaleOf(context),
    ...freedomOf(context),
  });
};

/** What the facets of a mesh leave open beside the tolerance, as a share of the volume. */
export const openOf = ({ reference, submission }: CheckContext): number =>
  submission.facets ? leftOpen(submission.facets) / reference.properties.volume : 0;

/** Where only what is left free differs, the amount says nothing. */
export const freedomOf = (context: CheckContext): { free?: true } => (onlyFreeDiffers(context) ? { free: true } : {});

/** Of a part that has the right form at the wrong size, how large it is. */
export const scaleOf = ({ comparison }: CheckContext): { scale?: number } =>
  comparison.finding === "scaled" ? { scale: comparison.scale } : {};
