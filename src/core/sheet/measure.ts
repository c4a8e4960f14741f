import { SQUARE } from "./tolerance";
import { SAME_WAY } from "@/core/geometry/tolerance";
import { betweenSupports, roundnessOf } from "@/core/measure/measure";
import type { AnchoredDimension } from "./subject";
import { dot3, sub3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Gaze } from "@/core/kernel/hidden-lines";
import { plainNumber, inUnit, type LengthUnit } from "@/core/units/quantity";
import { faceByKey, type SheetModel } from "./model";
import { project } from "./views";

/** A dimension as it stands on the Sheet: measured value and the points it hangs on, in view coordinates (mm). */
export interface DrawnDimension {
  readonly id: string;
  readonly view: AnchoredDimension["view"];
  readonly kind: AnchoredDimension["kind"];
  /** mm */
  readonly value: number;
  readonly text: string;
  /** Linear: the two points; round: centre and a point on the circle. */
  readonly a: Vec2;
  readonly b: Vec2;
  /** Linear: measured along the view's x or y. */
  readonly along?: "x" | "y";
}

/** A size as lettered: mm with up to 3 decimals; inches with up to 4 and no leading zero (ASME Y14.5). */
export const lettered = (mm: number, unit: LengthUnit): string =>
  unit === "mm" ? plainNumber(mm, 3) : plainNumber(inUnit(mm, unit), 4).replace(/^0\./, ".");

/** Measures one anchored dimension on the reference. Undefined when a face is lost or the view cannot show it. */
export function measureAnchored(
  model: SheetModel,
  d: AnchoredDimension,
  gaze: Gaze,
  unit: LengthUnit,
): DrawnDimension | undefined {
  const [first, second] = d.faces.map((k) => faceByKey(model, k));
  if (!first || (d.faces.length === 2 && !second)) return undefined;
  if (d.kind !== "linear") {
    if (first.carrier.kind !== "cylinder") return undefined;
    const { at, radius } = first.carrier;
    const c = project(gaze, at);
    const value = roundnessOf(first.carrier).find((r) => r.what === d.kind)!.value;
    const sign = d.kind === "diameter" ? "⌀" : "R";
    return {
      id: d.id,
      view: d.view,
      kind: d.kind,
      value,
      text: `${d.count ? `${d.count}× ` : ""}${sign}${lettered(value, unit)}`,
      a: c,
      b: [c[0] + radius * Math.SQRT1_2, c[1] + radius * Math.SQRT1_2],
    };
  }
  if (!second || first.carrier.kind !== "plane") return undefined;
  const { normal, offset } = first.carrier;
  const n = project(gaze, normal);
  const along = Math.abs(n[0]) > 0.999 ? "x" : Math.abs(n[1]) > 0.999 ? "y" : undefined;
  if (!along) return undefined;
  const target = targetPoint(second, normal, offset, d.reach);
  if (!target) return undefined;
  const gap = betweenSupports({ plane: first.carrier }, { point: target }).find((r) => r.what === "distance")!;
  const foot = nearestTo(first.points, target);
  return {
    id: d.id,
    view: d.view,
    kind: "linear",
    value: gap.value,
    text: lettered(gap.value, unit),
    a: project(gaze, foot),
    b: project(gaze, target),
    along,
  };
}

/** The point of the second face a distance is taken to. */
function targetPoint(
  face: SheetModel["faces"][number],
  normal: Vec3,
  offset: number,
  reach?: "near" | "far",
): Vec3 | undefined {
  const c = face.carrier;
  if (c.kind === "cylinder") return Math.abs(dot3(c.axis, normal)) < SQUARE ? c.at : undefined;
  if (c.kind === "plane" && Math.abs(Math.abs(dot3(c.normal, normal)) - 1) < SAME_WAY) return face.points[0];
  if (!reach) return undefined;
  const away = (p: Vec3) => Math.abs(dot3(p, normal) - offset);
  return [...face.points].sort((p, q) => (reach === "near" ? away(p) - away(q) : away(q) - away(p)))[0];
}

const nearestTo = (points: readonly Vec3[], p: Vec3): Vec3 => {
  const far = (q: Vec3) => dot3(sub3(q, p), sub3(q, p));
  return points.reduce((best, q) => (far(q) < far(best) ? q : best), points[0] ?? p);
};
