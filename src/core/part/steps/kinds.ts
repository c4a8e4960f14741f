import { z } from "zod";
import { fieldsOf } from "@/core/naming/field";
import { stepsOfField } from "@/core/naming/reference";
import { axisKind } from "./axis/schema";
import { chamferKind } from "./chamfer/schema";
import { extrudeKind } from "./extrude/schema";
import type { StepKind } from "./fields";
import { filletKind } from "./fillet/schema";
import { holeKind } from "./hole/schema";
import { importedKind } from "./imported/schema";
import { mirrorKind } from "./mirror/schema";
import { patternKind } from "./pattern/schema";
import { planeKind } from "./plane/schema";
import { pointKind } from "./point/schema";
import { revolveKind } from "./revolve/schema";
import { shellKind } from "./shell/schema";
import { sketchKind } from "./sketch/schema";

/** Every kind of step, one line each; how they are built stands in builders.ts. */
export const STEP_KINDS = {
  sketch: sketchKind,
  extrude: extrudeKind,
  revolve: revolveKind,
  hole: holeKind,
  fillet: filletKind,
  chamfer: chamferKind,
  shell: shellKind,
  mirror: mirrorKind,
  pattern: patternKind,
  plane: planeKind,
  axis: axisKind,
  point: pointKind,
  imported: importedKind,
};
type Kinds = typeof STEP_KINDS;
export type Step = { [K in keyof Kinds]: z.infer<Kinds[K]["schema"]> }[keyof Kinds];

export const StepSchema = z.discriminatedUnion(
  "kind",
  Object.values(STEP_KINDS).map((k) => k.schema) as never,
) as unknown as z.ZodType<Step>;

export const kindOf = (step: Step): StepKind<Step> => STEP_KINDS[step.kind];

/** A step's name, or what its kind is called. */
export const titleOf = (step: Step): string => step.name ?? kindOf(step).read(step, "mm").title;

/** Whether a step makes or changes material. */
export const isSolidStep = ({ kind }: Step): boolean => !["sketch", "plane", "axis", "point"].includes(kind);

/** Ids of the earlier steps that a step stands on, by what its fields mean. */
export const usesOf = (step: Step): string[] => [...new Set(fieldsOf(kindOf(step).schema, step).flatMap(stepsOfField))];
