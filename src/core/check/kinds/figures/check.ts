import { distance3 } from "@/core/geometry/vector";
import { move } from "@/core/geometry/rigid";
import { placed } from "@/core/kernel/place";
import { boxOf } from "@/core/kernel/properties";
import { sizeOfPart } from "../../comparison";
import type { CheckContext } from "../context";
import type { CheckedFigure, FiguresEvidence } from "./kind";

/** Surface, extents, principal moments and centre of mass of the whole, where it lies on the reference. */
export function checkFigures({ kernel, exercise, reference, submission, comparison }: CheckContext): FiguresEvidence {
  const [want, own] = [reference.properties, submission.properties];
  if (!own || !submission.solid) return { check: "figures", verdict: "missed", off: 1, figures: [] };
  const share = exercise.tolerances.volume;
  const figure = (what: CheckedFigure["what"], wanted: number, measured: number, tolerance: number): CheckedFigure => {
    return { what, wanted, measured, off: Math.abs(measured - wanted) / wanted, tolerance };
  };
  const lying = placed(kernel, submission.solid, comparison.motion),
    box = boxOf(kernel, lying.shape);
  kernel.release(lying.shape);
  const long = (b: { min: readonly number[]; max: readonly number[] }, i: number) => b.max[i]! - b.min[i]!;
  const centre = move(comparison.motion, own.centre),
    off = distance3(centre, want.centre);
  const size = sizeOfPart(reference);
  const figures: CheckedFigure[] = [
    figure("surface area", want.area, own.area, share),
    ...[0, 1, 2].map((i) => figure("length over all", long(want.box, i), long(box, i), share)),
    ...want.moments.map((m, i) => figure("principal moment", m, own.moments[i]!, 5 * share)),
    { what: "centre of mass", wanted: 0, measured: off, off, tolerance: share * size },
  ];
  const wrong = figures.filter((f) => f.off > f.tolerance).length;
  return { check: "figures", verdict: wrong ? "missed" : "met", off: wrong, figures };
}
