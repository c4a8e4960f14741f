import { z } from "zod";
import type { MassUnit } from "@/core/units/amounts";
import type { LengthUnit } from "@/core/units/quantity";
import type { WayRule } from "./ways/rule";

/** met: within tolerance; missed: not; unknown: could not be told. */
export const VerdictSchema = z.enum(["met", "missed", "unknown"]);
export type Verdict = z.infer<typeof VerdictSchema>;

/** What every piece of evidence says: which check, its verdict, and how far off (0: not at all). */
export interface AnyEvidence {
  readonly check: string;
  readonly verdict: Verdict;
  readonly off: number;
}

/** What a sentence needs to know of the exercise. */
export interface Asked {
  readonly units: LengthUnit;
  readonly massUnit?: MassUnit | undefined;
  readonly sheet: { readonly printMass: boolean; readonly printVolume: boolean };
}

/** What a line of a rubric chooses of what a check found. */
interface LineChoice {
  readonly only?: readonly string[] | undefined;
  readonly unused?: boolean | undefined;
  readonly rule?: WayRule | undefined;
}

/** All that is known of a kind of check without running it. */
export interface CheckKind<E extends AnyEvidence> {
  readonly evidence: z.ZodType<E>;
  /** What was measured against what, for the instructor. */
  toInstructor(e: E, asked: Asked): string;
  /** For the student: their own measure and the verdict; of the reference never more than the Sheet prints. */
  toStudent(e: E, asked: Asked): string;
  /** The evidence as a line looks at it: only what it chooses, judged by its rule. Left out: as it was found. */
  forLine?(e: E, line: LineChoice, asked: Asked): E;
  /** How many things are right of how many, for lines that go by the share; left out where there are none. */
  items?(e: E): { readonly right: number; readonly of: number };
  /** Whether nothing is earned however little is off. */
  earnsNothing?(e: E): boolean;
  /**
   * How the limit of a falling score is typed in the exercise's form; left out where there is nothing between all and
   * nothing.
   */
  readonly limit?: { readonly unit: string; readonly isShare: boolean };
  /** How the rubric begins. */
  readonly start: { readonly title: string; readonly points: number; readonly limit?: number };
}
