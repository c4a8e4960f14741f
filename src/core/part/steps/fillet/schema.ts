import { lengthField, sizeText, stepFields, stepKind, StepEdgeSchema } from "../fields";
import { z } from "zod";

const FilletStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("fillet"),
  /** Edges with a radius of their own; a rounding runs on along edges that go on without a corner. */
  groups: z
    .array(z.strictObject({ radius: lengthField("radius"), edges: z.array(StepEdgeSchema).max(500) }))
    .min(1)
    .max(50),
});
export type FilletStep = z.infer<typeof FilletStepSchema>;

export const filletKind = stepKind({
  schema: FilletStepSchema,
  read(step, unit) {
    const n = step.groups.reduce((s, g) => s + g.edges.length, 0);
    return {
      title: "Fillet",
      detail: `${step.groups.map((g) => `R ${sizeText(g.radius, unit)}`).join(", ")} · ${n} edge${n === 1 ? "" : "s"}`,
    };
  },
});
