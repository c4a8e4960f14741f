import type { PartDocument } from "./document";
import { numbersOf, type PartNumber } from "./numbers";
import { kindOf, titleOf, type Step } from "./steps/kinds";

/** A step that stands in one part only, or reads differently in the two. */
export interface StepDifference {
  /** How the list of Steps shows it: "step 3, Hole". */
  readonly called: string;
  readonly kind: "only-first" | "only-second" | "changed";
  /** What it says, number by number where they differ. */
  readonly numbers: readonly { readonly name: string; readonly first: string; readonly second: string }[];
  /** Drawn or picked differently, beside its numbers. */
  readonly otherwise: boolean;
}

/**
 * How two parts differ as they are made: by their steps, which keep their ids from version to version, and the numbers
 * in them. Nothing is built.
 */
export function compareParts(first: PartDocument, second: PartDocument): StepDifference[] {
  const called = (d: PartDocument, s: Step) => `step ${d.steps.indexOf(s) + 1}, ${titleOf(s)}`;
  const [ofFirst, ofSecond] = [numbersById(first), numbersById(second)];
  const gone = first.steps.filter((s) => !second.steps.some((t) => t.id === s.id));
  return [
    ...gone.map((s) => ({ called: called(first, s), kind: "only-first" as const, numbers: [], otherwise: false })),
    ...second.steps.flatMap((s): StepDifference[] => {
      const was = first.steps.find((t) => t.id === s.id);
      if (!was) return [{ called: called(second, s), kind: "only-second", numbers: [], otherwise: false }];
      if (JSON.stringify(was) === JSON.stringify(s)) return [];
      const changed = differing(ofFirst.get(s.id) ?? [], ofSecond.get(s.id) ?? []);
      const reads = (d: PartDocument, t: Step) => JSON.stringify(kindOf(t).read(t, d.units));
      const otherwise = !changed.length || reads(first, was) !== reads(second, s);
      return [{ called: called(second, s), kind: "changed", numbers: changed, otherwise }];
    }),
  ];
}

const numbersById = (d: PartDocument) => new Map(numbersOf(d).map((s) => [s.step, s.numbers]));

function differing(first: readonly PartNumber[], second: readonly PartNumber[]): StepDifference["numbers"] {
  const paths = [...new Set([...first, ...second].map((n) => n.path))];
  return paths.flatMap((path) => {
    const [was, is] = [first, second].map((list) => list.find((n) => n.path === path));
    const [before, after] = [was, is].map((n) => (n === undefined ? "–" : String(n.value)));
    return before === after ? [] : [{ name: (was ?? is)?.label ?? "", first: before ?? "–", second: after ?? "–" }];
  });
}
