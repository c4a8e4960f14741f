import { distance3 } from "@/core/geometry/vector";
import { move } from "@/core/geometry/rigid";
import { placed } from "@/core/kernel/place";
import { mapped } from "@/core/measure/facet-body";
import { boxOf } from "@/core/kernel/properties";
import { sizeOfPart } from "../../faces/comparison";
import type { CheckContext } from "../context";
import { openOf } from "../volume/check";
import type { CheckedFigure, FiguresEvidence } from "./kind";

/** Surface, extents, principal moments and centre of mass of the whole, where it lies on the reference. */
export function checkFigures(context: CheckContext): FiguresEvidence {
  const { exercise, reference, submission, comparison } = context;
  const [want, own] = [reference.properties, submission.properties];
  if (!own) return { check: "figures", verdict: "missed", off: FIGURES, figures: [] };
  // surfaces and moments feel what facets leave open more than the volume does
  const share = exercise.tolerances.volume + 5 * openOf(context);
  const figure = (what: CheckedFigure["what"], wanted: number, measured: number, tolerance: number): CheckedFigure => {
    return { what, wanted, measured, off: Math.abs(measured - wanted) / wanted, tolerance };
  };
  const box = boxWhereItLies(context);
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

/** Area, three lengths, three moments, centre: a part without a solid misses them all. */
const FIGURES = 8;

/** The box around the submission where it lies on the reference. */
function boxWhereItLies({ kernel, submission, comparison }: CheckContext) {
  if (submission.facets) return mapped(submission.facets, (p) => move(comparison.motion, p), 1).properties.box;
  const lying = placed(kernel, submission.solid!, comparison.motion),
    box = boxOf(kernel, lying.shape);
  kernel.release(lying.shape);
  return box;
}
