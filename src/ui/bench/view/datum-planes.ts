import { toSpace } from "@/core/geometry/frame";
import { distance3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { frameOf } from "@/core/part/steps/sketch/schema";

/** The three datum planes with what is said of each. */
export const DATUM_PLANES = [
  ["front", "seen from the front"],
  ["top", "seen from above"],
  ["right", "seen from the right"],
] as const;
export type Base = (typeof DATUM_PLANES)[number][0];

/** Half the side of a drawn datum plane over an empty part, mm. */
const HALF = 56;
/** Where each is named, in halves of its side: corners that lie apart as the planes are first seen. */
export const NAMED: Record<Base, Vec2> = { front: [-0.94, 0.74], top: [0.66, 0.66], right: [0.5, 0.84] };

/** Of a plane, in its own coordinates. */
export const cornersOf = (half: number): readonly Vec2[] => [
  [-half, -half],
  [half, -half],
  [half, half],
  [-half, half],
];

/** Half the side of the datum planes over a part, or over none. mm */
export function halfFor(box: { readonly min: Vec3; readonly max: Vec3 } | undefined): number {
  return box ? 0.6 * distance3(box.min, box.max) : HALF;
}

/** The corners of all datum planes as they are drawn over a part, or over none. */
export function planeCorners(box: { readonly min: Vec3; readonly max: Vec3 } | undefined): Vec3[] {
  const half = halfFor(box);
  return DATUM_PLANES.flatMap(([base]) => cornersOf(half).map((p) => toSpace(frameOf({ base }), p)));
}
