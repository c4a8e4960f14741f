import { z } from "zod";
import type { Vec3 } from "@/core/geometry/vector";
import { readQuantity } from "@/core/units/quantity";
import { done, type Outcome } from "@/core/units/refusal";
import { placeOf } from "../../reference/resolve";
import { PointRefSchema, stepsOf } from "../../reference/schema";
import { SizeSchema, stepFields, type BuildContext, type StepKind } from "../step";

export const PointStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("point"),
  by: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("at"), at: z.tuple([SizeSchema, SizeSchema, SizeSchema]) }),
    /** A corner, the middle of a round or straight edge, a point of a sketch. */
    z.strictObject({ kind: z.literal("of"), of: PointRefSchema }),
  ]),
});
export type PointStep = z.infer<typeof PointStepSchema>;

function placeBy(context: BuildContext, { by }: PointStep): Outcome<Vec3> {
  if (by.kind === "of") return placeOf(context, by.of);
  const at: number[] = [];
  for (const v of by.at) {
    const r = readQuantity(v, "length", context.unit, context.names);
    if (!r.ok) return r;
    at.push(r.value);
  }
  return done(at as unknown as Vec3);
}

export const pointStep: StepKind<PointStep> = {
  schema: PointStepSchema,
  uses: ({ by }) => (by.kind === "of" ? stepsOf(by.of) : []),
  build(context, step) {
    const at = placeBy(context, step);
    return at.ok ? done({ datum: { kind: "point", at: at.value } }) : at;
  },
  read: ({ by }) => ({ title: "Datum point", detail: by.kind === "at" ? by.at.join(", ") : "of the part" }),
};
