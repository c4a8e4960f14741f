import type { Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { stepOf } from "@/core/naming/names";
import type { PartDocument } from "@/core/part/document";
import type { SizedBody } from "@/core/sizes/body";
import { isSquare } from "@/core/sizes/anchor";
import type { Feature } from "@/core/sizes/features";
import type { View } from "./views";

/**
 * Holes that were cut to a depth and leave no floor: they end in a hollow, and no size tells how many walls they go
 * through. Where a view shows them from the side, cut or with hidden lines, the drawing tells it.
 */
export function holesEndingInside(
  document: PartDocument,
  body: SizedBody,
  features: readonly Feature[],
  views: readonly View[],
): string[] {
  const names = body.surfaces.flatMap((s) => s.keys);
  return document.steps.flatMap((step) => {
    const cuts = step.kind === "hole" || (step.kind === "extrude" && step.operation === "cut");
    if (!cuts || step.suppressed || step.extent.kind !== "depth") return [];
    const own = names.filter((n) => stepOf(n) === step.id);
    // a floor, a tip or an end shows that it ends in the material
    if (!own.length || own.some((n) => /\/(end|start|floor|tip|bottom)\b/.test(n))) return [];
    const isShown = (axis: Vec3) =>
      views.some((v) => v.name !== "pictorial" && (v.hidden || v.cutters) && isSquare(axis, v.gaze.toViewer));
    const at = body.surfaces.findIndex((f) => f.keys.some((k) => stepOf(k) === step.id));
    const axis = at < 0 ? undefined : axisOf(body.surfaces[at]!.carrier)?.along;
    if (!axis || isShown(axis)) return [];
    return features.find((f) => f.surfaces.includes(at))?.name ?? [];
  });
}
