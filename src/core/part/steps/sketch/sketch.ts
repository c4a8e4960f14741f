import { z } from "zod";
import { DATUM_FRAMES, offsetFrame, type Frame } from "@/core/geometry/frame";
import { conflictSentence } from "@/core/sketch/sentences";
import { findRegions } from "@/core/sketch/regions";
import { SketchSchema, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { done, refuse } from "@/core/units/refusal";
import type { StepKind } from "../step";

export const SketchStepSchema = z.strictObject({
  id: z.string(), kind: z.literal("sketch"), name: z.string().max(80).optional(), suppressed: z.boolean().optional(),
  sketch: SketchSchema,
});
export type SketchStep = z.infer<typeof SketchStepSchema>;

/** The frame a sketch lies in, mm. */
export const frameOf = (plane: Sketch["plane"]): Frame => offsetFrame(DATUM_FRAMES[plane.base], plane.offset ?? 0);

export const sketchStep: StepKind<SketchStep> = {
  schema: SketchStepSchema,
  uses: () => [],
  build({ unit }, step) {
    const solved = solveSketch(step.sketch, unit);
    if (!solved.ok) return solved;
    if (!solved.value.solved) return refuse("conflict", conflictSentence(step.sketch, solved.value.conflict, unit), solved.value.conflict);
    return done({ sketch: { frame: frameOf(step.sketch.plane), diagnosis: solved.value, regions: findRegions(solved.value.sketch) } });
  },
  read(step) {
    const { base, offset } = step.sketch.plane;
    const n = step.sketch.curves.length;
    return { title: `Sketch on ${base}${offset ? " (offset)" : ""}`, detail: `${n} curve${n === 1 ? "" : "s"}` };
  },
};
