import { distance3 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import { boxOf, type Properties } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { surfacesOf, type Surface } from "@/core/measure/surfaces";
import type { Carriers } from "./anchor";
import { carriersOfSurfaces, spottedSurfaces } from "./carriers";

/** A part as sizes are looked for on it. */
export interface SizedBody {
  readonly surfaces: readonly Surface[];
  readonly on: Carriers;
  readonly box: Properties["box"];
  /** Box diagonal, mm. */
  readonly size: number;
}

/** Describes a body for sizes. */
export function sizedBody(kernel: Kernel, solid: Solid): SizedBody {
  const box = boxOf(kernel, solid.shape),
    size = distance3(box.min, box.max),
    surfaces = spottedSurfaces(kernel, solid, surfacesOf(kernel, solid, size));
  return bodyOf(surfaces, box);
}

/** The same of surfaces that are known already. */
export const bodyOf = (surfaces: readonly Surface[], box: Properties["box"]): SizedBody => ({
  surfaces,
  on: carriersOfSurfaces(surfaces),
  box,
  size: distance3(box.min, box.max),
});

/** What a surface is called where a size holds on to it. */
export const keyOf = (s: Surface): string => s.keys[0]!;
