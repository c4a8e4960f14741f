import { IDENTITY } from "@/core/geometry/rigid";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf, type Properties } from "@/core/kernel/properties";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import type { Step } from "@/core/part/steps/kinds";
import { cut, mirror, rect, sketch } from "@/core/part/testing/build";
import { inOtherUnits } from "@/core/part/unit-change";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { sameInertia } from "../placing/inertia";

/** Beyond all parts, mm. */
const FAR = 2000;
const AXES = ["right", "front", "top"] as const;

/**
 * The same part built in other right ways, by machine: in the other unit, with two steps in another order, and as a
 * half that is mirrored. Only ways that build just this part are given.
 */
export function otherWays(kernel: Kernel, document: PartDocument): [string, PartDocument][] {
  const measure = (d: PartDocument): Properties | undefined => {
    const built = rebuild(kernel, d);
    if (!built.body || built.steps.some((s) => s.refusal)) return undefined;
    const p = propertiesOf(kernel, built.body);
    kernel.release(built.body.shape);
    return p;
  };
  const whole = measure(document)!;
  const isSame = (d: PartDocument): boolean => {
    const p = measure(d);
    return !!p && p.bodies === whole.bodies && sameInertia(whole.tensor, p.tensor, IDENTITY.rows);
  };
  const unit = inOtherUnits(document, document.units === "mm" ? "in" : "mm");
  const order = swapped(document).find(isSame);
  const halves = AXES.flatMap((base, axis) => {
    const middle = (whole.box.min[axis]! + whole.box.max[axis]!) / 2;
    return [false, true].map((reverse) => halved(document, base, middle * (base === "front" ? -1 : 1), reverse));
  }).find(isSame);
  return [
    ...(unit.ok ? ([["in the other unit", unit.value]] as [string, PartDocument][]) : []),
    ...(order ? ([["in another order", order]] as [string, PartDocument][]) : []),
    ...(halves ? ([["as a half that is mirrored", halves]] as [string, PartDocument][]) : []),
  ];
}

/** With two neighbouring steps exchanged, from the last. */
const swapped = (d: PartDocument): PartDocument[] =>
  d.steps
    .map((_, i): PartDocument => {
      const steps: Step[] = [...d.steps];
      if (i) steps.splice(i - 1, 2, d.steps[i]!, d.steps[i - 1]!);
      return { ...d, steps };
    })
    .slice(1)
    .reverse();

/** Cut in two in the middle and mirrored there. */
function halved(d: PartDocument, base: (typeof AXES)[number], offset: number, reverse: boolean): PartDocument {
  const plane: Step = {
    id: "half-plane",
    kind: "plane",
    by: { kind: "offset", from: { datum: base }, distance: `${offset} mm` },
  };
  const steps = [
    ...d.steps,
    sketch("half-sketch", { base, offset }, rect(-FAR, -FAR, FAR, FAR)),
    cut("half-cut", "half-sketch", FAR, { reverse }),
    plane,
    mirror("half-mirror", { datum: "half-plane" }),
  ];
  return withSketchesDefined({ ...d, steps });
}
