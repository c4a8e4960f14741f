import type { Kernel } from "@/core/kernel/opencascade";
import type { Size } from "@/core/sizes/size";
import type { Comparison } from "../faces/comparison";
import type { NamedBody } from "../findings/findings";
import type { Measured, MeasuredReference } from "../given/measured";
import type { Exercise } from "../exercise/exercise";
import type { Answers, Wanted } from "../exercise/question";

/** What a check may know of who made a part: what their names for things hold. */
export interface Maker {
  readonly initials: string;
}

export interface CheckContext {
  readonly kernel: Kernel;
  readonly exercise: Exercise;
  readonly reference: MeasuredReference;
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
