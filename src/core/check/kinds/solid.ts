import type { CheckContext, Verdict } from "./kind";

export interface SolidEvidence {
  readonly check: "solid";
  readonly verdict: Verdict;
  readonly bodies: number;
  readonly closed: boolean;
  readonly valid: boolean;
  /** 0 or 1. */
  readonly off: number;
  /** Steps that could not be built, with the reason. */
  readonly troubled: readonly { readonly step: string; readonly sentence: string }[];
}

/** One closed valid solid, and every step built. */
export function checkSolid({ submission }: CheckContext): SolidEvidence {
  const p = submission.properties;
  const troubled = submission.built.steps
    .filter((s) => s.refusal)
    .map((s) => ({ step: s.id, sentence: s.refusal!.sentence }));
  const good = p !== undefined && p.bodies === 1 && p.closed && p.valid && !troubled.length;
  return {
    check: "solid",
    verdict: good ? "met" : "missed",
    bodies: p?.bodies ?? 0,
    closed: p?.closed ?? false,
    valid: p?.valid ?? false,
    off: good ? 0 : 1,
    troubled,
  };
}
