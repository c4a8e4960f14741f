import type { Segment } from "@/core/geometry/segment";
import type { Equation } from "../constraints/kind";

/** All there is to know about one kind of curve. */
export interface CurveKind<C> {
  /** Names of its points in the order of their numbers. */
  points(c: C): readonly string[];
  /** Its numbers: x and y of each point, then what is left (a radius). */
  numbers(c: C): number[];
  /** The curve with other numbers, in the same order. */
  withNumbers(c: C, v: readonly number[]): C;
  /** Place of its radius among the numbers. */
  readonly radius?: number;
  /** What holds it together, over slots that begin at `at`. */
  own?(at: number, c: C): Equation[];
  /** Its shape; undefined for a point. */
  segment(c: C): Segment | undefined;
  /** Lengths that must not vanish. */
  sizes(c: C): number[];
}
