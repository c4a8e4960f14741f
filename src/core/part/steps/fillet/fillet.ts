import { z } from "zod";
import { fillet } from "@/core/kernel/blend";
import { lengthText } from "@/core/units/quantity";
import { stepsOf } from "../../reference/schema";
import { blendEdges, StepEdgeSchema } from "../edges";
import { sizeText } from "../extrude/extrude";
import { lengthOf, SizeSchema, stepFields, type StepKind } from "../step";

export const FilletStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("fillet"),
  /** Edges with a radius of their own; a rounding runs on along edges that go on without a corner. */
  groups: z
    .array(z.strictObject({ radius: SizeSchema, edges: z.array(StepEdgeSchema).max(500) }))
    .min(1)
    .max(50),
});
export type FilletStep = z.infer<typeof FilletStepSchema>;

export const filletStep: StepKind<FilletStep> = {
  schema: FilletStepSchema,
  uses: (step) => [...new Set(step.groups.flatMap((g) => g.edges.flatMap((e) => stepsOf(e.on))))],
  build(context, step) {
    const radii = new Map<unknown, number>();
    for (const g of step.groups) {
      const r = lengthOf(context, g.radius, "The radius");
      if (!r.ok) return r;
      radii.set(g, r.value);
    }
    return blendEdges(
      context,
      step,
      step.groups,
      (solid, t, list, share) =>
        fillet(
          context.kernel,
          solid,
          list.map((f) => ({ id: f.id, edge: t.edges[f.index]!, radius: radii.get(f.group)! * share })),
          step.id,
        ),
      (g, share) => `a radius of ${lengthText(radii.get(g)! * share, context.unit)}`,
    );
  },
  read(step, unit) {
    const n = step.groups.reduce((s, g) => s + g.edges.length, 0);
    return {
      title: "Fillet",
      detail: `${step.groups.map((g) => `R ${sizeText(g.radius, unit)}`).join(", ")} · ${n} edge${n === 1 ? "" : "s"}`,
    };
  },
};
