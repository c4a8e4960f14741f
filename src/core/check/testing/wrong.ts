import type { PartDocument } from "@/core/part/document";
import { isSolidStep, kindOf, type Step } from "@/core/part/steps/kinds";
import { drivingNumbers } from "@/core/sizes/numbers";

/** A part that a student might have made wrong, by one change or two. */
export interface WrongPart {
  readonly label: string;
  readonly kind: "number" | "left out" | "turned round" | "cut short" | "two bodies" | "loose" | "material" | "pair";
  readonly document: PartDocument;
  /** Steps that are gone. */
  readonly gone?: readonly string[];
}

/** Each number by little and by much. */
const FACTORS = [1.002, 1.05, 1.4, 2, 0.5];

const withStep = (d: PartDocument, i: number, change: (s: Step) => unknown): PartDocument => ({
  ...d,
  steps: d.steps.map((s, k) => (k === i ? (change(s) as Step) : s)),
});

/** All wrong parts that a machine makes of a right one, the same every time. */
export function wrongParts(d: PartDocument): WrongPart[] {
  const numbers = drivingNumbers(d).flatMap((n): WrongPart[] =>
    FACTORS.map((f) => ({ label: `${n.label} × ${f}`, kind: "number", document: n.give(n.value * f) })),
  );
  const single: WrongPart[] = [...numbers, ...ofSteps(d), ...ofSketches(d)];
  const heavy = { ...d, material: { name: "Cast iron", density: d.material.density * 1.1 } };
  return [...single, { label: "of another material", kind: "material", document: heavy }, ...pairs(d)];
}

function ofSteps(d: PartDocument): WrongPart[] {
  return d.steps.flatMap((s, i): WrongPart[] => {
    if (s.suppressed || !isSolidStep(s)) return [];
    const called = `step ${i + 1} (${kindOf(s).read(s, d.units).title})`;
    const out = withStep(d, i, (o) => ({ ...o, suppressed: true }));
    const list: WrongPart[] = [{ label: `${called} left out`, kind: "left out", document: out, gone: [s.id] }];
    if (s.kind === "extrude" || s.kind === "hole") {
      const turned = withStep(d, i, () => ({ ...s, reverse: !s.reverse }));
      list.push({ label: `${called} turned round`, kind: "turned round", document: turned });
    }
    if ((s.kind === "extrude" || s.kind === "hole") && s.extent.kind === "through") {
      const short = withStep(d, i, () => ({ ...s, extent: { kind: "depth", depth: "5 mm" } }));
      list.push({ label: `${called} cut short`, kind: "cut short", document: short });
    }
    if (s.kind === "extrude" && s.operation === "add" && i > 1) {
      const apart = withStep(d, i, () => ({ ...s, operation: "separate" }));
      list.push({ label: `${called} as a body of its own`, kind: "two bodies", document: apart });
    }
    return list;
  });
}

/** A size taken away: the sketch stands as it was, and can move. */
const ofSketches = (d: PartDocument): WrongPart[] =>
  d.steps.flatMap((s, i): WrongPart[] => {
    if (s.kind !== "sketch" || !s.sketch.dimensions.length) return [];
    // how far a centre line reaches is no freedom: a size that does not end on one is taken away
    const { curves, dimensions } = s.sketch,
      axes = curves.flatMap((c) => ("construction" in c && c.construction === "centre-line" ? [c.id] : []));
    const gone = dimensions.find((size) => !size.of.some((ref) => axes.includes(ref.split(".")[0]!)));
    if (!gone) return [];
    const sketch = { ...s.sketch, dimensions: dimensions.filter((size) => size !== gone) };
    const document = withStep(d, i, () => ({ ...s, sketch }));
    return [{ label: `step ${i + 1} with a loose sketch`, kind: "loose", document }];
  });

/** Two numbers at once, chosen by a fixed stride. */
function pairs(d: PartDocument): WrongPart[] {
  const count = drivingNumbers(d).length;
  return Array.from({ length: Math.min(count, 12) }, (_, i): WrongPart => {
    const first = drivingNumbers(d)[(i * 5) % count]!,
      once = first.give(first.value * (i % 2 ? 1.1 : 0.9));
    const second = drivingNumbers(once)[(i * 7 + 3) % count] ?? drivingNumbers(once)[0]!;
    return {
      label: `${first.label} and ${second.label}`,
      kind: "pair",
      document: second.give(second.value * 1.15),
    };
  });
}
