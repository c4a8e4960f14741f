import {
  angleField,
  lengthField,
  operationFields,
  OPERATION_TEXT,
  regionsField,
  sizeText,
  sketchField,
  stepFields,
  stepKind,
  ThinSchema,
} from "../fields";
import { z } from "zod";
import { FaceRefSchema, PlaneRefSchema } from "@/core/naming/reference";

const ExtentSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("depth"), depth: lengthField("depth") }),
  /** The whole depth, half to each side of the sketch; `each`: the depth to each side. */
  z.strictObject({ kind: z.literal("both"), depth: lengthField("depth"), each: z.boolean().optional() }),
  /** One depth along the normal, another against it. */
  z.strictObject({ kind: z.literal("two"), depth: lengthField("depth"), back: lengthField("depth back") }),
  /** Through the whole part, both ways. */
  z.strictObject({ kind: z.literal("through") }),
  /** As far as a face or plane, and `offset` beyond it. */
  z.strictObject({ kind: z.literal("face"), face: PlaneRefSchema, offset: lengthField("beyond the face").optional() }),
  /** Until it meets the part. */
  z.strictObject({ kind: z.literal("meet") }),
]);
export type Extent = z.infer<typeof ExtentSchema>;

const ExtrudeStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("extrude"),
  ...operationFields,
  /** What rises: regions of a sketch, or a flat face of the part. */
  sketch: sketchField().optional(),
  face: FaceRefSchema.optional(),
  /** Names of the regions it takes; left out: all that are not inside a hole. */
  regions: regionsField().optional(),
  extent: ExtentSchema,
  /** Against the sketch's normal. */
  reverse: z.boolean().optional(),
  /** The sides lean by this angle, inwards as they go where positive. */
  draft: angleField("draft").optional(),
  thin: ThinSchema.optional(),
});
export type ExtrudeStep = z.infer<typeof ExtrudeStepSchema>;

export const extrudeKind = stepKind({
  schema: ExtrudeStepSchema,
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
});
