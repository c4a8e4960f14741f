import { lengthField, sizeText, stepFields, stepKind } from "../fields";
import { z } from "zod";
import { FaceRefSchema } from "@/core/naming/reference";

const ShellStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("shell"),
  /** Faces taken away. */
  open: z.array(FaceRefSchema).max(200),
  thickness: lengthField("wall"),
  /** The wall stands outside what was there. */
  outward: z.boolean().optional(),
  /** Faces whose wall is another: flat ones. */
  others: z
    .array(z.strictObject({ face: FaceRefSchema, thickness: lengthField("wall of the face") }))
    .max(50)
    .optional(),
});
export type ShellStep = z.infer<typeof ShellStepSchema>;

export const shellKind = stepKind({
  schema: ShellStepSchema,
  read: (step, unit) => {
    const wall = `wall ${sizeText(step.thickness, unit)}${step.outward ? " outward" : ""}`;
    const open = `${step.open.length} face${step.open.length === 1 ? "" : "s"} open`;
    return { title: "Shell", detail: `${wall} · ${open}` };
  },
});
