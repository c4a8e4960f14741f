import { lengthField, stepFields, stepKind } from "../fields";
import { z } from "zod";
import { PointRefSchema } from "@/core/naming/reference";

const PointStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("point"),
  by: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("at"), at: z.tuple([lengthField("x"), lengthField("y"), lengthField("z")]) }),
    /** A corner, the middle of a round or straight edge, a point of a sketch. */
    z.strictObject({ kind: z.literal("of"), of: PointRefSchema }),
  ]),
});
export type PointStep = z.infer<typeof PointStepSchema>;

export const pointKind = stepKind({
  schema: PointStepSchema,
  read: ({ by }) => ({ title: "Datum point", detail: by.kind === "at" ? by.at.join(", ") : "of the part" }),
});
