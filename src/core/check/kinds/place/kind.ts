import { z } from "zod";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";

/** Whether the part lies where the reference does, without being moved. */
export interface PlaceEvidence {
  readonly check: "place";
  readonly verdict: Verdict;
  /** 0 or 1. */
  readonly off: number;
  /** Faces that coincide as the part lies, and where it lies best. */
  readonly asBuilt: number;
  readonly atBest: number;
}

export const placeKind: CheckKind<PlaceEvidence> = {
  evidence: z.strictObject({
    check: z.literal("place"),
    verdict: VerdictSchema,
    off: z.number(),
    asBuilt: z.number(),
    atBest: z.number(),
  }),
  toInstructor: (e) => `${told(e)} ${e.asBuilt} faces coincide as it lies, ${e.atBest} where it lies best.`,
  toStudent: (e) => told(e),
  start: { title: "Origin and views as on the Sheet", points: 0 },
};

const told = (e: PlaceEvidence): string =>
  e.verdict === "met"
    ? "The part lies as the Sheet shows it."
    : "The part lies or stands another way than the Sheet shows: its origin or its views are others.";
