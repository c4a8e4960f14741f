import { looseIn, usedSketches } from "@/core/part/rebuild";
import { strayThings } from "@/core/part/strays";
import { kindOf } from "@/core/part/steps/kinds";
import type { CheckContext } from "../context";
import type { SketchesEvidence } from "./kind";

/** Each sketch that a step stands on must be fully defined. */
export function checkSketches({ submission }: CheckContext): SketchesEvidence {
  const { document, built: part } = submission;
  if (!document || !part) return { check: "sketches", verdict: "unknown", used: 0, defined: 0, off: 0, sketches: [] };
  const { steps, units } = document;
  const sketches = usedSketches(document).map((id) => {
    const at = steps.findIndex((s) => s.id === id);
    const title = `step ${at + 1} (${steps[at]!.name ?? kindOf(steps[at]!).read(steps[at]!, units).title})`;
    const built = part.sketches.get(id);
    if (!built)
      return {
        id,
        title,
        freedoms: 0,
        loose: [],
        trouble: part.steps.find((s) => s.id === id)?.refusal?.sentence ?? "could not be solved",
      };
    return {
      id,
      title,
      freedoms: built.diagnosis.freedoms,
      loose: looseIn(built.diagnosis, units),
      surplus: built.diagnosis.surplus.length,
    };
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
    strays: strayThings(document, submission.properties?.bodies ?? 0, part.bodies.length).map((s) => s.text),
  };
}
