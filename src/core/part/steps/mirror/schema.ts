import { OfSchema, stepFields, stepKind } from "../fields";
import { z } from "zod";
import { PlaneRefSchema } from "@/core/naming/reference";

export const MirrorStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("mirror"),
  of: OfSchema,
  about: PlaneRefSchema,
});
export type MirrorStep = z.infer<typeof MirrorStepSchema>;

export const mirrorKind = stepKind({
  schema: MirrorStepSchema,
  read: (step) => ({
    title: "Mirror",
    detail: `${"steps" in step.of ? step.of.steps.join(", ") : "the whole part"} · about ${"datum" in step.about ? step.about.datum : "a face"}`,
  }),
});
