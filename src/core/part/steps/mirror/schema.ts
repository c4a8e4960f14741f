import { stepMark } from "@/core/naming/words";
import { OfSchema, stepFields, stepKind } from "../fields";
import { z } from "zod";
import { PlaneRefSchema } from "@/core/naming/reference";

const MirrorStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("mirror"),
  of: OfSchema,
  about: PlaneRefSchema,
});
export type MirrorStep = z.infer<typeof MirrorStepSchema>;

export const mirrorKind = stepKind({
  schema: MirrorStepSchema,
  read(step) {
    const of = "steps" in step.of ? step.of.steps.map((id) => stepMark(id)).join(", ") : "the whole part";
    const datum = "datum" in step.about ? step.about.datum : undefined;
    const isPlane = datum === "front" || datum === "top" || datum === "right";
    const about = datum === undefined ? "a face" : isPlane ? datum : stepMark(datum);
    return { title: "Mirror", detail: `${of} · about ${about}` };
  },
});
