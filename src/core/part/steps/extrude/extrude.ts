import { z } from "zod";
import { prism } from "@/core/kernel/sweep";
import type { Solid } from "@/core/kernel/solid";
import { lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { refuse, type Outcome } from "@/core/units/refusal";
import { PlaneRefSchema, stepsOf } from "../../reference/schema";
import { built, OPERATION_TEXT, operationFields } from "../operate";
import { regionsFor, sketchFor } from "../profile";
import { angleOf, SizeSchema, stepFields, type BuildContext, type Size, type StepKind } from "../step";
import { thinned, ThinSchema } from "../thin";
import { spanOf, trimmed } from "./extent";
import { drafted } from "@/core/kernel/draft";

export const ExtentSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("depth"), depth: SizeSchema }),
  /** The whole depth, half to each side of the sketch; `each`: the depth to each side. */
  z.strictObject({ kind: z.literal("both"), depth: SizeSchema, each: z.boolean().optional() }),
  /** One depth along the normal, another against it. */
  z.strictObject({ kind: z.literal("two"), depth: SizeSchema, back: SizeSchema }),
  /** Through the whole part, both ways. */
  z.strictObject({ kind: z.literal("through") }),
  /** As far as a face or plane, and `offset` beyond it. */
  z.strictObject({ kind: z.literal("face"), face: PlaneRefSchema, offset: SizeSchema.optional() }),
  /** Until it meets the part. */
  z.strictObject({ kind: z.literal("meet") }),
]);
export type Extent = z.infer<typeof ExtentSchema>;

export const ExtrudeStepSchema = z.strictObject({
  ...stepFields, kind: z.literal("extrude"), ...operationFields,
  sketch: z.string(),
  /** Names of the regions it takes; left out: all that are not inside a hole. */
  regions: z.array(z.string().max(2000)).max(200).optional(),
  extent: ExtentSchema,
  /** Against the sketch's normal. */
  reverse: z.boolean().optional(),
  /** The sides lean by this angle, inwards as they go where positive. */
  draft: SizeSchema.optional(),
  thin: ThinSchema.optional(),
});
export type ExtrudeStep = z.infer<typeof ExtrudeStepSchema>;

/** The volumes of the step. The caller releases them. */
function volumes(context: BuildContext, step: ExtrudeStep): Outcome<Solid[]> {
  const { kernel } = context;
  const sketch = sketchFor(context, step.sketch);
  if (!sketch.ok) return sketch;
  const regions = regionsFor(step, sketch.value);
  if (!regions.ok) return regions;
  const span = spanOf(context, step, sketch.value.frame);
  if (!span.ok) return span;
  const { from, to } = span.value, made: Solid[] = [];
  const next = (solid: Solid) => {
    kernel.release(made.pop()!.shape);
    made.push(solid);
  };
  try {
    for (const r of regions.value) {
      made.push(prism(kernel, sketch.value.frame, r, from, to, step.id));
      if (step.draft !== undefined) {
        const angle = angleOf(context, step.draft);
        if (!angle.ok) return giveUp(angle);
        if (Math.abs(angle.value) > 1.4) return giveUp(refuse("bad-number", "The draft angle must be between -80° and 80°.", [step.id]));
        const leaning = drafted(kernel, made[made.length - 1]!, sketch.value.frame, angle.value * (step.reverse ? -1 : 1));
        if (!leaning) return giveUp(refuse("no-draft", "The sides cannot lean by this angle: it is too large for the depth, or a side is neither flat nor round.", [step.id]));
        next(leaning);
      }
      if (step.thin) {
        const wall = thinned(context, made[made.length - 1]!, step.thin, step.id);
        if (!wall.ok) return giveUp(wall);
        next(wall.value);
      }
    }
    const cut = trimmed(context, step, sketch.value.frame, made);
    return cut.ok ? cut : giveUp(cut);
  } catch (e) {
    kernel.release(...made.map((t) => t.shape));
    throw e;
  }
  function giveUp<T>(r: T): T {
    kernel.release(...made.map((t) => t.shape));
    return r;
  }
}

export const extrudeStep: StepKind<ExtrudeStep> = {
  schema: ExtrudeStepSchema,
  uses: (step) => [step.sketch, ...(step.extent.kind === "face" ? stepsOf(step.extent.face) : [])],
  build: (context, step) => built(context, step, () => volumes(context, step)),
  read(step, unit) {
    const { extent } = step;
    const how = { depth: "to depth", both: "both ways", two: "two depths", through: "through", face: "as far as a face", meet: "until it meets the part" }[extent.kind];
    const sizes = [..."depth" in extent ? [sizeText(extent.depth, unit)] : [], ..."back" in extent ? [sizeText(extent.back, unit)] : [], ...(step.draft !== undefined ? [`draft ${step.draft}°`] : []), ...(step.thin ? [`wall ${sizeText(step.thin.thickness, unit)}`] : [])];
    return { title: "Extrude", detail: [OPERATION_TEXT[step.operation], how, ...sizes].join(" · ") };
  },
};

/** A size as it reads in the list of Steps; an expression that names others stays as it was typed. */
export const sizeText = (size: Size, unit: LengthUnit): string => {
  const r = readQuantity(size, "length", unit);
  return r.ok ? lengthText(r.value, unit) : String(size);
};
