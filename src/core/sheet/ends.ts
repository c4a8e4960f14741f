import { stepOf } from "@/core/naming/names";
import type { PartDocument } from "@/core/part/document";
import type { SizedBody } from "@/core/sizes/body";
import type { Feature } from "@/core/sizes/features";

/**
 * Holes that were cut to a depth and leave no floor: they end in a hollow, which no size tells, nor does the number of
 * walls they go through.
 */
export function holesEndingInside(document: PartDocument, body: SizedBody, features: readonly Feature[]): string[] {
  const names = body.surfaces.flatMap((s) => s.keys);
  return document.steps.flatMap((s) => {
    const cuts = s.kind === "hole" || (s.kind === "extrude" && s.operation === "cut");
    if (!cuts || s.suppressed || s.extent.kind !== "depth") return [];
    const own = names.filter((n) => stepOf(n) === s.id);
    // a floor, a tip or an end shows that it ends in the material
    if (!own.length || own.some((n) => /\/(end|start|floor|tip|bottom)\b/.test(n))) return [];
    const at = body.surfaces.findIndex((f) => f.keys.some((k) => stepOf(k) === s.id));
    return features.find((f) => f.surfaces.includes(at))?.name ?? [];
  });
}
