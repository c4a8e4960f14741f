import { nestingOf } from "@/core/kernel/nesting";
import type { PartDocument } from "@/core/part/document";
import { titleOf } from "@/core/part/steps/kinds";
import type { CheckContext } from "../context";
import type { SolidEvidence } from "./kind";

/** One closed valid solid, and every step built. */
export function checkSolid({ kernel, submission }: CheckContext): SolidEvidence {
  const p = submission.properties;
  const { document, built } = submission;
  const troubled = (built?.steps ?? []).flatMap((s) =>
    s.refusal && document ? [{ step: calledStep(document, s.id), sentence: s.refusal.sentence }] : [],
  );
  const good = p !== undefined && p.bodies === 1 && p.closed && p.valid && !troubled.length;
  const nested = submission.solid && p && p.bodies > 1 ? nestingOf(kernel, submission.solid) : undefined;
  return {
    check: "solid",
    verdict: good ? "met" : "missed",
    bodies: p?.bodies ?? 0,
    closed: p?.closed ?? false,
    valid: p?.valid ?? false,
    ...(nested && { nested }),
    off: good ? 0 : 1,
    troubled,
  };
}

/** As the list of Steps shows it. */
function calledStep({ steps }: PartDocument, id: string): string {
  const at = steps.findIndex((s) => s.id === id);
  return `step ${at + 1} (${titleOf(steps[at]!)})`;
}
