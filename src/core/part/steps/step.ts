import type { z } from "zod";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import type { Sketch } from "@/core/sketch/sketch";
import type { Regions } from "@/core/sketch/regions";
import type { Diagnosis } from "@/core/sketch/solve";
import type { Frame } from "@/core/geometry/frame";
import type { LengthUnit } from "@/core/units/quantity";
import type { Outcome } from "@/core/units/refusal";

/** A sketch step after solving. */
export interface BuiltSketch {
  readonly frame: Frame;
  /** The sketch on the part as built: its plane and its pictures of edges where they stand now, not yet solved. */
  readonly placed: Sketch;
  readonly diagnosis: Diagnosis;
  readonly regions: Regions;
}

/** What a step finds when it is built: everything before it. */
export interface BuildContext {
  readonly kernel: Kernel;
  readonly unit: LengthUnit;
  readonly body: Solid | undefined;
  readonly sketches: ReadonlyMap<string, BuiltSketch>;
}

/** What a step gives: a new body, or a built sketch. Bodies it replaces are released by the rebuild. */
export type StepResult = { readonly body: Solid } | { readonly sketch: BuiltSketch };

/** All there is to know about a kind of step. */
export interface StepKind<S extends { id: string }> {
  readonly schema: z.ZodType<S>;
  build(context: BuildContext, step: S): Outcome<StepResult>;
  /** Ids of earlier steps it stands on. */
  uses(step: S): readonly string[];
  /** How it reads in the list of Steps: a name and its figures. */
  read(step: S, unit: LengthUnit): { readonly title: string; readonly detail: string };
}
