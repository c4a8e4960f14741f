import { stepFields, stepKind } from "../fields";
import { z } from "zod";
import { AxisRefSchema, PlaneRefSchema, PointRefSchema } from "@/core/naming/reference";

const AxisStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("axis"),
  by: z.discriminatedUnion("kind", [
    /** Of a round face or edge, along a straight edge, or a line of a sketch. */
    z.strictObject({ kind: z.literal("of"), of: AxisRefSchema }),
    z.strictObject({ kind: z.literal("points"), a: PointRefSchema, b: PointRefSchema }),
    z.strictObject({ kind: z.literal("planes"), a: PlaneRefSchema, b: PlaneRefSchema }),
    /** Square to a plane, through a point. */
    z.strictObject({ kind: z.literal("square"), plane: PlaneRefSchema, through: PointRefSchema }),
  ]),
});
export type AxisStep = z.infer<typeof AxisStepSchema>;

export const axisKind = stepKind({
  schema: AxisStepSchema,
  read: ({ by }) => ({
    title: "Datum axis",
    detail: {
      of: "of an edge or face",
      points: "through two points",
      planes: "where two planes meet",
      square: "square to a plane",
    }[by.kind],
  }),
});
