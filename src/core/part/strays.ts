import { findRegions } from "@/core/sketch/regions";
import { wordsFor } from "@/core/sketch/words";
import type { PartDocument } from "./document";
import { titleOf, usesOf } from "./steps/kinds";

/** Something left lying about: what it is, and the step to go to. */
export interface Stray {
  readonly text: string;
  readonly step?: string;
}

/**
 * Sketches that no step uses, curves that close nothing, and material that is not joined.
 * @param lumps separate solids as built @param bodies how many of them are bodies by intent
 */
export function strayThings(document: PartDocument, lumps: number, bodies: number): Stray[] {
  const used = new Set(document.steps.filter((s) => !s.suppressed).flatMap(usesOf)),
    list: Stray[] = [];
  // walls follow outlines that are open on purpose
  const walled = new Set(document.steps.flatMap((s) => ("thin" in s && s.thin && s.sketch ? [s.sketch] : [])));
  document.steps.forEach((s, i) => {
    if (s.kind !== "sketch" || s.suppressed) return;
    const called = s.name ?? `Sketch ${i + 1}`;
    if (!s.sketch.curves.length) return void list.push({ text: `${called} is empty.`, step: s.id });
    if (!used.has(s.id)) list.push({ text: `${called} is used by no step.`, step: s.id });
    const gaps = findRegions(s.sketch).gaps,
      loose = new Set(gaps.map((g) => g.curve));
    if (!loose.size || !used.has(s.id) || walled.has(s.id)) return;
    const named = [...loose].slice(0, 4).map(wordsFor(s.sketch, document.units)).join(", ");
    const text = `${called}: ${named}${loose.size > 4 ? " …" : ""} end${loose.size > 1 ? "" : "s"} in the open.`;
    list.push({ text, step: s.id });
  });
  if (lumps > Math.max(bodies, 1)) list.push({ text: `The part lies in ${lumps} pieces that do not touch.` });
  else if (bodies > 1) list.push({ text: `The part has ${bodies} separate bodies.` });
  document.steps.forEach((s, i) => {
    if (s.suppressed) list.push({ text: `Step ${i + 1} (${titleOf(s)}) is suppressed.`, step: s.id });
  });
  return list;
}
