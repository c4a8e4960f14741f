import { z } from "zod";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";

/** A line that a person marks: the program has nothing to say. */
export interface HandEvidence {
  readonly check: "hand";
  readonly verdict: Verdict;
  readonly off: number;
}

export const handKind: CheckKind<HandEvidence> = {
  evidence: z.strictObject({ check: z.literal("hand"), verdict: VerdictSchema, off: z.number() }),
  toInstructor: () => "Marked by hand.",
  toStudent: () => "Marked by hand.",
  start: { title: "Marked by hand", points: 0 },
};
