import type { PartDocument } from "@/core/part/document";
import { usesOf, type Step } from "@/core/part/steps/kinds";

/** Whether a step works on all there is, named or not. */
function takesAll(step: Step): boolean {
  if (step.kind === "shell") return true;
  if (step.kind === "pattern" || step.kind === "mirror") return "body" in step.of;
  if (step.kind !== "extrude" && step.kind !== "revolve") return false;
  // how far it goes is told by what stands in its way
  return step.thin !== undefined || (step.kind === "extrude" && step.extent.kind === "meet");
}

const MAKES = new Set(["extrude", "revolve"]);

/**
 * The steps that hang on one, with all that these stand on: enough of a part to see where its faces go when a number
 * of that step changes. @returns the slice, and the steps in it whose faces may move
 */
export function sliceOf(document: PartDocument, from: string): { document: PartDocument; moving: ReadonlySet<string> } {
  const steps = document.steps.filter((s) => !s.suppressed);
  const uses = new Map(steps.map((s) => [s.id, usesOf(s)]));
  const moving = new Set([from]);
  for (const s of steps) if (uses.get(s.id)!.some((u) => moving.has(u))) moving.add(s.id);
  const start = steps.findIndex((s) => s.id === from);
  if (steps.some((s, i) => i >= start && takesAll(s))) {
    const all = new Set(steps.slice(start).map((s) => s.id));
    return { document: { ...document, steps }, moving: all };
  }
  const needed = new Set<string>();
  const need = (id: string) => {
    if (needed.has(id)) return;
    needed.add(id);
    for (const u of uses.get(id) ?? []) need(u);
  };
  moving.forEach(need);
  // what is cut away needs something to be cut from
  const first = steps.find((s) => MAKES.has(s.kind));
  if (first) need(first.id);
  return { document: { ...document, steps: steps.filter((s) => needed.has(s.id)) }, moving };
}
