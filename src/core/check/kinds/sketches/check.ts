import { looseIn, usedSketches } from "@/core/part/rebuild";
import { strayThings } from "@/core/part/strays";
import type { PartDocument } from "@/core/part/document";
import { kindOf, titleOf } from "@/core/part/steps/kinds";
import { freeMotions } from "../../faces/free-motion";
import type { CheckContext } from "../context";
import { judgedSketches, type SketchesEvidence } from "./kind";

/** Each sketch that a step stands on must be fully defined. */
export function checkSketches(context: CheckContext): SketchesEvidence {
  const { submission } = context;
  const { document, built: part } = submission;
  if (!document || !part) return { check: "sketches", verdict: "unknown", used: 0, defined: 0, off: 0, sketches: [] };
  const { steps, units } = document;
  const isLoose = usedSketches(document).some((id) => part.sketches.get(id)?.diagnosis.freedoms);
  const free = isLoose ? freeMotions(context) : new Map<string, number>();
  const used = new Set(usedSketches(document));
  const stateOf = (id: string) => {
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
      ...(free.has(id) && { free: Math.min(free.get(id)!, built.diagnosis.freedoms) }),
    };
  };
  const others = steps.flatMap((s) => (s.kind === "sketch" && !used.has(s.id) ? [stateOf(s.id)] : []));
  return {
    check: "sketches",
    ...judgedSketches([...used].map(stateOf)),
    ...(others.length && { others }),
    strays: [
      ...strayThings(document, submission.properties?.bodies ?? 0, part.bodies.length).map((s) => s.text),
      ...unanchored(document),
    ],
  };
}

const HELD_BY = /^(origin|x-axis|y-axis)$/;
/** Sketches that stand where they are because they were fixed there, and not by the origin or by other geometry. */
function unanchored(document: PartDocument): string[] {
  return usedSketches(document).flatMap((id) => {
    const at = document.steps.findIndex((s) => s.id === id),
      step = document.steps[at];
    if (step?.kind !== "sketch") return [];
    const { curves, constraints, dimensions } = step.sketch;
    const pictures = new Set(curves.flatMap((c) => ("projected" in c && c.projected ? [c.id] : [])));
    const holds = (ref: string) => HELD_BY.test(ref) || pictures.has(ref.split(".")[0]!);
    const isAnchored = [...constraints, ...dimensions].some((r) => r.of.some(holds));
    if (isAnchored || !constraints.some((c) => c.kind === "fixed")) return [];
    return [`Step ${at + 1} (${titleOf(step)}) is fixed where it was drawn, and not held by the origin.`];
  });
}
