import type { Vec3 } from "@/core/geometry/vector";
import { facePoints } from "@/core/kernel/scene";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf, type Properties } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import type { Surface } from "@/core/measure/surfaces";
import { sizedBody, type SizedBody } from "@/core/sizes/body";

/** A reference body with what a Sheet measures on it. */
export interface SheetModel {
  readonly solid: Solid;
  readonly properties: Properties;
  readonly body: SizedBody;
  /** Points along the edges of a face, by its key. */
  readonly points: (face: string) => readonly Vec3[];
}

export function sheetModel(kernel: Kernel, solid: Solid): SheetModel {
  const all = facePoints(kernel, solid),
    body = sizedBody(kernel, solid);
  const by = new Map<string, readonly Vec3[]>();
  const points = (s: Surface) => s.pieces.flatMap((i) => all[i]!);
  for (const s of body.surfaces) for (const key of s.keys) by.set(key, points(s));
  return { solid, properties: propertiesOf(kernel, solid), body, points: (face) => by.get(face) ?? [] };
}
