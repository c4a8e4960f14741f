import { z } from "zod";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";
import { plainText } from "@/core/units/text";

export interface SolidEvidence {
  readonly check: "solid";
  readonly verdict: Verdict;
  readonly bodies: number;
  readonly closed: boolean;
  readonly valid: boolean;
  /** Of several bodies: whether one lies in another, in its material or in a hollow of it. */
  readonly nested?: "in the material" | "in a hollow" | undefined;
  /** 0 or 1. */
  readonly off: number;
  /** Steps that could not be built, with the reason. */
  readonly troubled: readonly { readonly step: string; readonly sentence: string }[];
}

export const solidKind: CheckKind<SolidEvidence> = {
  evidence: z.strictObject({
    check: z.literal("solid"),
    verdict: VerdictSchema,
    bodies: z.number(),
    closed: z.boolean(),
    valid: z.boolean(),
    nested: z.enum(["in the material", "in a hollow"]).optional(),
    off: z.number(),
    troubled: z.array(z.strictObject({ step: plainText(), sentence: plainText() })),
  }),
  toInstructor: (e) => told(e),
  toStudent: (e) => told(e),
  start: { title: "One closed solid", points: 2 },
};

function told(e: SolidEvidence): string {
  if (e.verdict === "met") return "One closed solid; every step builds.";
  const trouble = e.troubled.map((t) => `${t.step}: ${t.sentence}`).join(" ");
  return trouble ? `${bodiesText(e)}; ${trouble}` : `${bodiesText(e)}.`;
}

function bodiesText(e: SolidEvidence): string {
  if (e.bodies === 0) return "There is no solid";
  if (e.bodies === 1) return e.troubled.length ? "One solid" : "The solid is not closed or not valid";
  const nested = e.nested ? `, one ${e.nested} of another` : "";
  return `${e.bodies} separate bodies instead of one${nested}`;
}
