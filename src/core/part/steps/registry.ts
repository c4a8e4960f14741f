import { z } from "zod";
import { axisStep, AxisStepSchema } from "./axis/axis";
import { chamferStep, ChamferStepSchema } from "./chamfer/chamfer";
import { extrudeStep, ExtrudeStepSchema } from "./extrude/extrude";
import { filletStep, FilletStepSchema } from "./fillet/fillet";
import { holeStep, HoleStepSchema } from "./hole/hole";
import { mirrorStep, MirrorStepSchema } from "./mirror/mirror";
import { patternStep, PatternStepSchema } from "./pattern/pattern";
import { planeStep, PlaneStepSchema } from "./plane/plane";
import { pointStep, PointStepSchema } from "./point/point";
import { revolveStep, RevolveStepSchema } from "./revolve/revolve";
import { shellStep, ShellStepSchema } from "./shell/shell";
import { sketchStep, SketchStepSchema } from "./sketch/sketch";
import type { StepKind } from "./step";

/** Every kind of step, one line each. */
export const STEP_KINDS = {
  sketch: sketchStep,
  extrude: extrudeStep,
  revolve: revolveStep,
  hole: holeStep,
  fillet: filletStep,
  chamfer: chamferStep,
  shell: shellStep,
  mirror: mirrorStep,
  pattern: patternStep,
  plane: planeStep,
  axis: axisStep,
  point: pointStep,
};
export const StepSchema = z.discriminatedUnion("kind", [
  SketchStepSchema,
  ExtrudeStepSchema,
  RevolveStepSchema,
  HoleStepSchema,
  FilletStepSchema,
  ChamferStepSchema,
  ShellStepSchema,
  MirrorStepSchema,
  PatternStepSchema,
  PlaneStepSchema,
  AxisStepSchema,
  PointStepSchema,
]);

export type Step = z.infer<typeof StepSchema>;
export const kindOf = (step: Step): StepKind<Step> => STEP_KINDS[step.kind] as unknown as StepKind<Step>;
