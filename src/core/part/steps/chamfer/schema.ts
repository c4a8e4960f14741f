import { angleField, lengthField, sizeText, stepFields, stepKind, StepEdgeSchema } from "../fields";
import { z } from "zod";

const ChamferStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("chamfer"),
  groups: z
    .array(
      z.strictObject({
        size: z.discriminatedUnion("kind", [
          z.strictObject({ kind: z.literal("equal"), distance: lengthField("distance") }),
          /** `first` is measured on the face that the edge's name puts first; `swap` on the other. */
          z.strictObject({
            kind: z.literal("two"),
            first: lengthField("first distance"),
            second: lengthField("second distance"),
            swap: z.boolean().optional(),
          }),
          /** The angle between the chamfer and the face that `distance` is measured on. */
          z.strictObject({
            kind: z.literal("angle"),
            distance: lengthField("distance"),
            angle: angleField("angle"),
            swap: z.boolean().optional(),
          }),
        ]),
        /** An edge may have it the other way round than its group. */
        edges: z.array(StepEdgeSchema.extend({ swap: z.boolean().optional() })).max(500),
      }),
    )
    .min(1)
    .max(50),
});
export type ChamferStep = z.infer<typeof ChamferStepSchema>;

export const chamferKind = stepKind({
  schema: ChamferStepSchema,
  read(step, unit) {
    const n = step.groups.reduce((s, g) => s + g.edges.length, 0);
    const size = (g: ChamferStep["groups"][number]["size"]) =>
      g.kind === "equal"
        ? sizeText(g.distance, unit)
        : g.kind === "two"
          ? `${sizeText(g.first, unit)} × ${sizeText(g.second, unit)}`
          : `${sizeText(g.distance, unit)} × ${g.angle}°`;
    return {
      title: "Chamfer",
      detail: `${step.groups.map((g) => size(g.size)).join(", ")} · ${n} edge${n === 1 ? "" : "s"}`,
    };
  },
});
