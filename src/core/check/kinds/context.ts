import type { Face } from "@/core/kernel/faces";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Properties } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import type { PartDocument } from "@/core/part/document";
import type { BuiltPart } from "@/core/part/rebuild";
import type { Exercise } from "../exercise";

/** A part built and measured. */
export interface Measured {
  readonly document: PartDocument;
  readonly built: BuiltPart;
  readonly solid: Solid | undefined;
  readonly properties: Properties | undefined;
  readonly faces: readonly Face[];
}

export interface CheckContext {
  readonly kernel: Kernel;
  readonly exercise: Exercise;
  readonly reference: Measured & { readonly solid: Solid; readonly properties: Properties };
  readonly submission: Measured;
}
