import { z } from "zod";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { drafted } from "@/core/kernel/draft";
import type { Solid } from "@/core/kernel/solid";
import { prism, prismOnFace } from "@/core/kernel/sweep";
import type { Region } from "@/core/sketch/regions";
import { lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { faceOf, planeOf } from "../../reference/resolve";
import { FaceRefSchema, PlaneRefSchema, stepsOf } from "../../reference/schema";
import { built, OPERATION_TEXT, operationFields } from "../operate";
import { isOpen, regionsFor, sketchFor } from "../profile";
import {
  angleOf,
  SizeSchema,
  stepFields,
  type BuildContext,
  type BuiltSketch,
  type Size,
  type StepKind,
} from "../step";
import { sweptVolumes, ThinSchema } from "../thin";
import { spanOf, trimmed, type Span } from "./extent";

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
  ...stepFields,
  kind: z.literal("extrude"),
  ...operationFields,
  /** What rises: regions of a sketch, or a flat face of the part. */
  sketch: z.string().optional(),
  face: FaceRefSchema.optional(),
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

/** Where the step begins: a plane, and the volumes over its profiles between two heights. */
interface Base {
  readonly frame: Frame;
  readonly outlines: readonly Region[];
  readonly open?: BuiltSketch;
  readonly over: (outline: Region | undefined, span: Span) => Solid;
}

function baseOf(context: BuildContext, step: ExtrudeStep): Outcome<Base> {
  const { kernel } = context;
  if (step.face) {
    const face = faceOf(context, step.face),
      frame = planeOf(context, step.face);
    if (!face.ok) return face;
    return frame.ok
      ? done({
          frame: frame.value,
          outlines: [],
          over: (_, { from, to }) =>
            prismOnFace(kernel, context.topology()!, face.value, normalOf(frame.value), from, to, step.id),
        })
      : frame;
  }
  const sketch = sketchFor(context, step.sketch ?? "");
  if (!sketch.ok) return sketch;
  const { frame } = sketch.value,
    over = (r: Region | undefined, { from, to }: Span) => prism(kernel, frame, r!, from, to, step.id);
  if (isOpen(step, sketch.value)) return done({ frame, outlines: [], open: sketch.value, over });
  const regions = regionsFor(step, sketch.value);
  return regions.ok ? done({ frame, outlines: regions.value, over }) : regions;
}

/** The volumes of the step. The caller releases them. */
function volumes(context: BuildContext, step: ExtrudeStep): Outcome<Solid[]> {
  const { kernel } = context,
    base = baseOf(context, step);
  if (!base.ok) return base;
  const { frame, outlines, open } = base.value,
    span = spanOf(context, step, frame);
  if (!span.ok) return span;
  const angle = step.draft === undefined ? done(0) : angleOf(context, step.draft);
  if (!angle.ok) return angle;
  if (Math.abs(angle.value) > 1.4)
    return refuse("bad-number", "The draft angle must be between -80° and 80°.", [step.id]);
  const sweep = (r: Region | undefined): Outcome<Solid> => {
    const straight = base.value.over(r, span.value);
    if (!angle.value) return done(straight);
    const leaning = drafted(kernel, straight, frame, angle.value * (step.reverse ? -1 : 1));
    kernel.release(straight.shape);
    return leaning
      ? done(leaning)
      : refuse(
          "no-draft",
          "The sides cannot lean by this angle: it is too large for the depth, or a side is neither flat nor round.",
          [step.id],
        );
  };
  const made = sweptVolumes<Region | undefined>(context, step, step.face ? [undefined] : outlines, open, sweep);
  if (!made.ok) return made;
  const failed = <T>(r: T): T => (kernel.release(...made.value.map((t) => t.shape)), r);
  try {
    const cut = trimmed(context, step, frame, made.value);
    return cut.ok ? cut : failed(cut);
  } catch (e) {
    throw failed(e);
  }
}

export const extrudeStep: StepKind<ExtrudeStep> = {
  schema: ExtrudeStepSchema,
  uses: (step) => [
    ...(step.face ? stepsOf(step.face) : step.sketch ? [step.sketch] : []),
    ...(step.extent.kind === "face" ? stepsOf(step.extent.face) : []),
  ],
  build: (context, step) => built(context, step, () => volumes(context, step)),
  read(step, unit) {
    const { extent } = step;
    const how = {
      depth: "to depth",
      both: "both ways",
      two: "two depths",
      through: "through",
      face: "as far as a face",
      meet: "until it meets the part",
    }[extent.kind];
    const sizes = [
      ...("depth" in extent ? [sizeText(extent.depth, unit)] : []),
      ...("back" in extent ? [sizeText(extent.back, unit)] : []),
      ...(step.draft !== undefined ? [`draft ${step.draft}°`] : []),
      ...(step.thin ? [`wall ${sizeText(step.thin.thickness, unit)}`] : []),
    ];
    return { title: "Extrude", detail: [OPERATION_TEXT[step.operation], how, ...sizes].join(" · ") };
  },
};

/** A size as it reads in the list of Steps; an expression that names others stays as it was typed. */
export const sizeText = (size: Size, unit: LengthUnit): string => {
  const r = readQuantity(size, "length", unit);
  return r.ok ? lengthText(r.value, unit) : String(size);
};
