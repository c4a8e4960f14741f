import type { PartDocument } from "@/core/part/document";
import { withStep } from "@/core/part/commands";
import { stepCalled } from "@/core/part/numbers";
import { isSolidStep, type Step } from "@/core/part/steps/kinds";
import type { Mend, TurnOption } from "./cause";

/** A part with one thing done otherwise, and what that is called. */
export interface Changed {
  readonly mend: Mend;
  readonly document: PartDocument;
}

/** So many places in a row of like things a count may be off. */
const COUNTS_OFF = [-2, -1, 1, 2];

type Turned = readonly [TurnOption, Step];

/**
 * Everything of a part that can be turned or left out, one at a time, the last steps first.
 * @param depths what may have been meant where a step goes through, mm
 */
export function turnsOf(d: PartDocument, depths: readonly number[]): Changed[] {
  return d.steps
    .flatMap((step, at): Changed[] => {
      if (step.suppressed || !isSolidStep(step)) return [];
      const called = stepCalled(d, at);
      const turned = turnsOfStep(step, depths, at > 1).map(([option, other]) => ({
        mend: { do: "turn" as const, step: step.id, called, option },
        document: withStep(d, other),
      }));
      return [...turned, { mend: { do: "leave-out", step: step.id, called }, document: without(d, step) }];
    })
    .reverse();
}

/** A part without a step. */
export const without = (d: PartDocument, step: Step): PartDocument => withStep(d, { ...step, suppressed: true });

function turnsOfStep(step: Step, depths: readonly number[], isLater: boolean): Turned[] {
  switch (step.kind) {
    case "extrude":
      return [["side", { ...step, reverse: !step.reverse }], ...ofExtent(step, depths), ...ofOperation(step, isLater)];
    case "revolve":
      return ofOperation(step, isLater);
    case "hole":
      return [["side", { ...step, reverse: !step.reverse }], ...ofExtent(step, depths)];
    case "chamfer":
      return swapped(step);
    case "pattern":
      return counted(step);
    default:
      return [];
  }
}

type Deep = Extract<Step, { kind: "extrude" | "hole" }>;

function ofExtent(step: Deep, depths: readonly number[]): Turned[] {
  const { extent } = step;
  const put = (to: object): Step => ({ ...step, extent: to }) as Step;
  if (extent.kind === "through")
    return depths.map((mm) => ["depth-for-through", put({ kind: "depth", depth: `${mm} mm` })]);
  const list: Turned[] = [["through-for-depth", put({ kind: "through" })]];
  if (step.kind === "hole") return list;
  if (extent.kind === "depth") list.push(["both-for-one", put({ kind: "both", depth: extent.depth })]);
  if (extent.kind === "both") list.push(["one-for-both", put({ kind: "depth", depth: extent.depth })]);
  return list;
}

function ofOperation(step: Extract<Step, { kind: "extrude" | "revolve" }>, isLater: boolean): Turned[] {
  if (!isLater) return [];
  const as = (operation: typeof step.operation): Step => ({ ...step, operation }) as Step;
  if (step.operation === "add") return [["cut-for-add", as("cut")]];
  if (step.operation === "cut") return [["add-for-cut", as("add")]];
  return [["join", as("add")]];
}

function swapped(step: Extract<Step, { kind: "chamfer" }>): Turned[] {
  return step.groups.flatMap((g, i): Turned[] => {
    if (g.size.kind === "equal") return [];
    const size = { ...g.size, swap: !g.size.swap };
    return [["first-and-second", { ...step, groups: step.groups.map((h, k) => (k === i ? { ...h, size } : h)) }]];
  });
}

function counted(step: Extract<Step, { kind: "pattern" }>): Turned[] {
  const { way } = step;
  return COUNTS_OFF.flatMap((off): Turned[] => {
    if (way.kind === "ring") {
      const count = Number(way.count) + off;
      return count > 1 ? [["count", { ...step, way: { ...way, count } }]] : [];
    }
    const count = Number(way.first.count) + off;
    return count > 1 ? [["count", { ...step, way: { ...way, first: { ...way.first, count } } }]] : [];
  });
}
