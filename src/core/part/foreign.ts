import type { PartDocument } from "./document";

/** Ids of steps that brought a body from a file. */
export const foreignSteps = (document: PartDocument): string[] =>
  document.steps.flatMap((s) => (s.kind === "imported" && !s.suppressed ? [s.id] : []));

/** Whether a number was read off a body whose making nobody knows: it can be followed, and not be given. */
export const isForeign = (number: { readonly id: string }, document: PartDocument): boolean =>
  foreignSteps(document).some((step) => number.id.startsWith(`${step}:`));
