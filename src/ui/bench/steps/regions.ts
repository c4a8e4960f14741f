import type { PartDocument } from "@/core/part/document";
import type { Step } from "@/core/part/steps/kinds";
import { defaultRegions, regionOf, type Region } from "@/core/sketch/regions";
import type { Sketch } from "@/core/sketch/sketch";
import { diagnosisOf, regionsOf, sketchOf } from "../documents";

export type Swept = Extract<Step, { kind: "extrude" | "revolve" }>;
export const isSwept = (s: Step): s is Swept => s.kind === "extrude" || s.kind === "revolve";

/** What a swept step has to choose from. */
export interface Choice {
  readonly sketch: Sketch;
  readonly regions: readonly Region[];
  readonly taken: ReadonlySet<Region>;
}

/** The regions of a step's sketch, and which of them it takes. Nothing where there is no sketch that can be solved. */
export function choiceOf(
  step: Pick<Swept, "sketch" | "regions">,
  document: Pick<PartDocument, "units" | "steps">,
): Choice | undefined {
  const stored = step.sketch === undefined ? undefined : sketchOf(document, step.sketch);
  const sketch = stored && diagnosisOf(stored, document.units)?.sketch;
  if (!sketch) return undefined;
  const found = regionsOf(sketch);
  const named = step.regions?.flatMap((name) => regionOf(found.regions, name) ?? []);
  return { sketch, regions: found.regions, taken: new Set(named ?? defaultRegions(found)) };
}

/** What no step before has taken of a sketch's regions, where some have been: a new step begins with these. */
export function unusedRegions(
  sketch: string,
  before: readonly Step[],
  units: PartDocument["units"],
): Pick<Swept, "regions"> {
  const document = { units, steps: [...before] };
  const users = before.filter(isSwept).filter((s) => s.sketch === sketch && !s.suppressed);
  const used = new Set(users.flatMap((s) => [...(choiceOf(s, document)?.taken ?? [])].map((r) => r.identity)));
  const left = choiceOf({ sketch }, document)?.regions.filter((r) => !used.has(r.identity)) ?? [];
  return users.length && left.length ? { regions: left.map((r) => r.identity) } : {};
}
