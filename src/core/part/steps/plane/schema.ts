import { angleField, lengthField, stepFields, stepKind } from "../fields";
import { z } from "zod";
import { AxisRefSchema, FaceRefSchema, PlaneRefSchema, PointRefSchema } from "@/core/naming/reference";

const PlaneStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("plane"),
  by: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("offset"), from: PlaneRefSchema, distance: lengthField("offset") }),
    z.strictObject({
      kind: z.literal("tilted"),
      from: PlaneRefSchema,
      about: AxisRefSchema,
      angle: angleField("tilt"),
    }),
    z.strictObject({ kind: z.literal("midway"), a: PlaneRefSchema, b: PlaneRefSchema }),
    z.strictObject({ kind: z.literal("points"), of: z.tuple([PointRefSchema, PointRefSchema, PointRefSchema]) }),
    /** Touches a cylinder, parallel to a plane; `far` on the other side. */
    z.strictObject({
      kind: z.literal("tangent"),
      face: FaceRefSchema,
      beside: PlaneRefSchema,
      far: z.boolean().optional(),
    }),
  ]),
});
export type PlaneStep = z.infer<typeof PlaneStepSchema>;

export const planeKind = stepKind({
  schema: PlaneStepSchema,
  read(step) {
    const { by } = step;
    return {
      title: "Datum plane",
      detail:
        by.kind === "offset"
          ? `offset ${by.distance}`
          : by.kind === "tilted"
            ? `tilted ${by.angle}°`
            : { midway: "midway", points: "through three points", tangent: "tangent" }[by.kind],
    };
  },
});
