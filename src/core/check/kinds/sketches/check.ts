import { looseIn, usedSketches } from "@/core/part/rebuild";
import { kindOf } from "@/core/part/steps/kinds";
import type { CheckContext } from "../context";
import type { SketchesEvidence } from "./kind";

/** Each sketch that a step stands on must be fully defined. */
export function checkSketches({ submission }: CheckContext): SketchesEvidence {
  const { steps, units } = submission.document;
  const sketches = usedSketches(submission.document).map((id) => {
    const at = steps.findIndex((s) => s.id === id);
    const title = `step ${at + 1} (${steps[at]!.name ?? kindOf(steps[at]!).read(steps[at]!, units).title})`;
    const built = submission.built.sketches.get(id);
    if (!built)
      return {
        id,
        title,
        freedoms: 0,
        loose: [],
        trouble: submission.built.steps.find((s) => s.id === id)?.refusal?.sentence ?? "could not be solved",
      };
    return { id, title, freedoms: built.diagnosis.freedoms, loose: looseIn(built.diagnosis, units) };
  });
  const defined = sketches.filter((s) => s.freedoms === 0 && !("trouble" in s)).length;
  const troubled = sketches.some((s) => "trouble" in s);
  return {
    check: "sketches",
    verdict: sketches.length > 0 && defined === sketches.length ? "met" : "missed",
    used: sketches.length,
    defined,
    off: troubled || !sketches.length ? 1e6 : sketches.reduce((s, k) => s + k.freedoms, 0),
    sketches,
  };
}
