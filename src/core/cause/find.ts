import type { Kernel } from "@/core/kernel/opencascade";
import { inContext, type CheckOptions } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import { measurePart } from "@/core/check/given/measured";
import type { CheckContext } from "@/core/check/kinds/context";
import { INCHES } from "@/core/check/tolerance";
import type { PartDocument } from "@/core/part/document";
import { done, type Outcome } from "@/core/units/refusal";
import type { Cause } from "./cause";
import { Search, type SearchLimits } from "./search";

/**
 * Looks for what makes a part wrong: a smallest change of it that makes it the reference, or of the reference that
 * makes it the part. What is called certain was built and compared.
 * @returns a refusal where the exercise's own reference cannot be built
 */
export const findCause = (
  kernel: Kernel,
  exercise: Exercise,
  submitted: PartDocument,
  options: CheckOptions & SearchLimits = {},
): Outcome<Cause> =>
  inContext(
    kernel,
    exercise,
    () => done(measurePart(kernel, submitted, options.progress)),
    { ...options, bySizes: true },
    (context) => ofWhole(context) ?? new Search(context, options).run(submitted),
  );

/** What the comparison says already. */
function ofWhole({ comparison, submission, reference }: CheckContext): Cause | undefined {
  const whole = (what: "mirrored" | "unit" | "joined"): Cause => ({ found: "certain", or: [[{ do: "whole", what }]] });
  if (comparison.finding === "mirrored") return whole("mirrored");
  const inches = comparison.scale > 1 ? comparison.scale : 1 / comparison.scale;
  if (comparison.finding === "scaled" && Math.abs(inches / 25.4 - 1) < INCHES) return whole("unit");
  if (comparison.finding === "absent") return { found: "unknown" };
  if (comparison.finding !== "same") return undefined;
  const isApart = (submission.properties?.bodies ?? 1) > reference.properties.bodies;
  return isApart ? whole("joined") : { found: "none" };
}
