import { z } from "zod";
import { normalOf } from "@/core/geometry/frame";
import type { Rigid } from "@/core/geometry/rigid";
import { dot3, scale3, type Vec3 } from "@/core/geometry/vector";
import { planeOf } from "../../reference/resolve";
import { PlaneRefSchema, stepsOf } from "../../reference/schema";
import { OfSchema, repeat } from "../repeat";
import { stepFields, type StepKind } from "../step";

export const MirrorStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("mirror"),
  of: OfSchema,
  about: PlaneRefSchema,
});
export type MirrorStep = z.infer<typeof MirrorStepSchema>;

/** The reflection in a plane through a point: x − 2 n (n·(x − o)). */
export function reflection(origin: Vec3, n: Vec3): Rigid {
  const row = (i: 0 | 1 | 2): Vec3 => [0, 1, 2].map((j) => (i === j ? 1 : 0) - 2 * n[i]! * n[j]!) as unknown as Vec3;
  return { rows: [row(0), row(1), row(2)], shift: scale3(n, 2 * dot3(n, origin)) };
}

export const mirrorStep: StepKind<MirrorStep> = {
  schema: MirrorStepSchema,
  uses: (step) => [...new Set([...("steps" in step.of ? step.of.steps : []), ...stepsOf(step.about)])],
  build(context, step) {
    const plane = planeOf(context, step.about);
    if (!plane.ok)
      return {
        ok: false,
        refusal: {
          ...plane.refusal,
          lost: [{ path: "about", ref: step.about, sentence: plane.refusal.sentence }],
        } as never,
      };
    return repeat(context, step, [{ role: "image", motion: reflection(plane.value.origin, normalOf(plane.value)) }]);
  },
  read: (step) => ({
    title: "Mirror",
    detail: `${"steps" in step.of ? step.of.steps.join(", ") : "the whole part"} · about ${"datum" in step.about ? step.about.datum : "a face"}`,
  }),
};
