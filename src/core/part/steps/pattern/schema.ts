import { stepMark } from "@/core/naming/words";
import { angleField, countField, lengthField, OfSchema, stepFields, stepKind } from "../fields";
import { means } from "@/core/naming/field";
import { z } from "zod";
import { readQuantity } from "@/core/units/quantity";
import { AxisRefSchema } from "@/core/naming/reference";
import { plainText } from "@/core/units/text";

/** One direction of a row: `step` from one to the next, or `total` from the first to the last. */
const RowSchema = z.strictObject({
  along: AxisRefSchema,
  count: countField("count"),
  by: z.enum(["step", "total"]),
  distance: lengthField("spacing"),
  reverse: z.boolean().optional(),
});

const PatternStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("pattern"),
  of: OfSchema,
  way: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("rows"), first: RowSchema, second: RowSchema.optional() }),
    /** `step` from one to the next; `total` from first to last, or the whole turn shared out where it is 360°. */
    z.strictObject({
      kind: z.literal("ring"),
      about: AxisRefSchema,
      count: countField("count"),
      by: z.enum(["step", "total"]),
      angle: angleField("angle"),
      reverse: z.boolean().optional(),
    }),
  ]),
  /** Places left empty: `3`, or `3.2` in the second direction; 1 is the original. */
  skip: z
    .array(means(plainText().regex(/^\d{1,3}(\.\d{1,3})?$/), "ratio"))
    .max(500)
    .optional(),
});
export type PatternStep = z.infer<typeof PatternStepSchema>;
export type Row = z.infer<typeof RowSchema>;

export const patternKind = stepKind({
  schema: PatternStepSchema,
  read(step, unit) {
    const { way } = step,
      of = "steps" in step.of ? step.of.steps.map((id) => stepMark(id)).join(", ") : "the whole part";
    const sizes =
      way.kind === "ring"
        ? `${way.count} in a ring`
        : `${way.first.count}${way.second ? ` × ${way.second.count}` : ""} in a row`;
    const r = way.kind === "rows" ? readQuantity(way.first.distance, "length", unit) : undefined;
    return {
      title: "Pattern",
      detail: `${of} · ${sizes}${r ? ` · ${String(way.kind === "rows" ? way.first.distance : "")}` : ""}`,
    };
  },
});
