import { z } from "zod";
import { KernelFault } from "@/core/kernel/opencascade";
import { pushed } from "@/core/kernel/push";
import { shelled } from "@/core/kernel/shell";
import { faceKey } from "@/core/kernel/solid";
import { done, refuse } from "@/core/units/refusal";
import { faceOf } from "../../reference/resolve";
import { FaceRefSchema, stepsOf } from "../../reference/schema";
import { sizeText } from "../extrude/extrude";
import { lengthOf, SizeSchema, stepFields, type Body, type Lost, type StepKind } from "../step";

export const ShellStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("shell"),
  /** Faces taken away. */
  open: z.array(FaceRefSchema).max(200),
  thickness: SizeSchema,
  /** The wall stands outside what was there. */
  outward: z.boolean().optional(),
  /** Faces whose wall is another: flat ones. */
  others: z
    .array(z.strictObject({ face: FaceRefSchema, thickness: SizeSchema }))
    .max(50)
    .optional(),
});
export type ShellStep = z.infer<typeof ShellStepSchema>;

export const shellStep: StepKind<ShellStep> = {
  schema: ShellStepSchema,
  uses: (step) => [...new Set([...step.open, ...(step.others ?? []).map((o) => o.face)].flatMap(stepsOf))],
  build(context, step) {
    const { kernel, bodies } = context,
      t = context.topology();
    if (!t) return refuse("no-body", "There is no part yet to be hollowed out.", [step.id]);
    const thickness = lengthOf(context, step.thickness, "The thickness");
    if (!thickness.ok) return thickness;
    const open: number[] = [],
      lost: Lost[] = [];
    step.open.forEach((ref, i) => {
      const f = faceOf(context, ref);
      if (f.ok) open.push(f.value);
      else lost.push({ path: `open.${i}`, ref, sentence: f.refusal.sentence });
    });
    if (lost.length)
      return {
        ok: false,
        refusal: { ...refuse("lost-reference", lost[0]!.sentence, [step.id]).refusal, lost } as never,
      };
    const starts: number[] = [];
    bodies.reduce((n, b, i) => ((starts[i] = n), n + b.solid.names.length), 0);
    const bodyOf = (face: number) => starts.findLastIndex((s) => s <= face);
    // a body without an open face is left alone, unless it is the only one
    const touched = new Set(open.map(bodyOf));
    if (!open.length) return refuse("no-faces", "Pick the faces that are to be open.", [step.id]);
    const after: Body[] = [];
    try {
      for (const [i, b] of bodies.entries()) {
        if (!touched.has(i)) {
          after.push(b);
          continue;
        }
        let solid = shelled(
          kernel,
          b.solid,
          open.filter((f) => bodyOf(f) === i).map((f) => f - starts[i]!),
          step.outward ? -thickness.value : thickness.value,
          step.id,
        );
        for (const other of step.others ?? []) {
          const f = faceOf(context, other.face),
            wall = lengthOf(context, other.thickness, "The thickness");
          if (!f.ok) return f;
          if (!wall.ok) return wall;
          if (bodyOf(f.value) !== i) continue;
          // inward the new face is moved; outward it is the one that carries the old name
          const moved = { step: step.id, role: "inner", of: faceKey(b.solid.names[f.value - starts[i]!]![0]!) };
          const next = pushed(kernel, solid, faceKey(moved), wall.value - thickness.value);
          if (!next) {
            kernel.release(solid.shape);
            return refuse("not-flat", "Only flat faces can have a wall of their own.", [step.id]);
          }
          kernel.release(solid.shape);
          solid = next;
        }
        after.push({ id: b.id, solid });
      }
    } catch (e) {
      if (!(e instanceof KernelFault)) throw e;
      kernel.release(...after.filter((b) => !bodies.includes(b)).map((b) => b.solid.shape));
      return refuse(
        "no-wall",
        "A wall of this thickness cannot be made: make it thinner, or shell before the finest roundings.",
        [step.id],
      );
    }
    return done({ bodies: after });
  },
  read: (step, unit) => ({
    title: "Shell",
    detail: `wall ${sizeText(step.thickness, unit)}${step.outward ? " outward" : ""} · ${step.open.length} face${step.open.length === 1 ? "" : "s"} open`,
  }),
};
