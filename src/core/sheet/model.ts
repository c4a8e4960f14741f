import type { Vec3 } from "@/core/geometry/vector";
import { facesOf, type Face } from "@/core/kernel/faces";
import { facePoints } from "@/core/kernel/hidden-lines";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf, type Properties } from "@/core/kernel/properties";
import { formatFace } from "@/core/naming/names";
import { type Solid } from "@/core/kernel/solid";

/** A reference body with what a Sheet measures on it. */
export interface SheetModel {
  readonly solid: Solid;
  readonly properties: Properties;
  readonly faces: readonly (Face & { readonly points: readonly Vec3[] })[];
}

export function sheetModel(kernel: Kernel, solid: Solid): SheetModel {
  const points = facePoints(kernel, solid);
  return {
    solid,
    properties: propertiesOf(kernel, solid),
    faces: facesOf(kernel, solid).map((f, i) => ({ ...f, points: points[i]! })),
  };
}

export const faceByKey = (m: SheetModel, key: string) =>
  m.faces.find((f) => f.key === key || f.names.some((n) => formatFace(n) === key));
