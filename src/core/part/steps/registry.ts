import { z } from "zod";
import { extrudeStep, ExtrudeStepSchema } from "./extrude/extrude";
import { sketchStep, SketchStepSchema } from "./sketch/sketch";
import type { StepKind } from "./step";

/** Every kind of step, one line each. */
export const STEP_KINDS = { sketch: sketchStep, extrude: extrudeStep };
export const StepSchema = z.discriminatedUnion("kind", [SketchStepSchema, ExtrudeStepSchema]);

export type Step = z.infer<typeof StepSchema>;
export const kindOf = (step: Step): StepKind<Step> => STEP_KINDS[step.kind] as unknown as StepKind<Step>;
