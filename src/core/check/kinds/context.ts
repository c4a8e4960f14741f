import type { Kernel } from "@/core/kernel/opencascade";
import type { Properties } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import type { FacetBody } from "@/core/measure/facet-body";
import type { Surface } from "@/core/measure/surfaces";
import type { PartDocument } from "@/core/part/document";
import type { BuiltPart } from "@/core/part/rebuild";
import type { Size } from "@/core/sizes/size";
import type { Comparison } from "../comparison";
import type { NamedBody } from "../findings";
import type { Exercise } from "../exercise";
import type { Answers, Wanted } from "../question";

/** A part built and measured. */
export interface Measured {
  /** None of a part that came as a file: there are no steps to look at. */
  readonly document?: PartDocument | undefined;
  readonly built?: BuiltPart | undefined;
  readonly solid: Solid | undefined;
  readonly properties: Properties | undefined;
  readonly faces: readonly Surface[];
  /** Of several bodies: what they make up together, as shapes are compared. Those that touch are one there. */
  readonly joined?: { readonly solid: Solid; readonly faces: readonly Surface[] } | undefined;
  /** Of a part that came as a mesh, in place of a solid. */
  readonly facets?: FacetBody | undefined;
}

/** A part as its shape is compared: its bodies as one. */
export const wholeOf = (m: Measured): Pick<Measured, "solid" | "faces"> => m.joined ?? m;

/** What a check may know of who made a part: what their names for things hold. */
export interface Maker {
  readonly initials: string;
}

export interface CheckContext {
  readonly kernel: Kernel;
  readonly exercise: Exercise;
  readonly reference: Measured & { readonly solid: Solid; readonly properties: Properties };
  readonly submission: Measured;
  /** Where the submission lies on the reference, and which face is which. */
  readonly comparison: Comparison;
  /** What the things on the reference are called. */
  readonly named: NamedBody;
  /** The sizes that the exercise prints. */
  readonly sizes: readonly Size[];
  /** The figures that the student typed, and those that are right. */
  readonly answers: Answers;
  readonly wanted: Wanted;
  /** Who made it. */
  readonly by: Maker;
}
