import type { Rigid } from "@/core/geometry/rigid";
import { dot3, eachAxis, type Vec3 } from "@/core/geometry/vector";
import type { Properties } from "@/core/kernel/properties";
import { SAME_INERTIA } from "../tolerance";

type Tensor = Properties["tensor"];

const eachAxis3 = (by: (axis: 0 | 1 | 2) => Vec3): Tensor => [by(0), by(1), by(2)];

/** A tensor in a turned frame: R J Rᵀ. */
function turned(j: Tensor, rows: Rigid["rows"]): Tensor {
  // J is symmetric: its rows are its columns
  const half = eachAxis3((i) => eachAxis((k) => dot3(rows[i], j[k])));
  return eachAxis3((i) => eachAxis((k) => dot3(half[i], rows[k])));
}

/** Mirrored in the plane x = 0: its products with x change sign. */
export const mirroredTensor = (j: Tensor): Tensor => [
  [j[0][0], -j[0][1], -j[0][2]],
  [-j[1][0], j[1][1], j[1][2]],
  [-j[2][0], j[2][1], j[2][2]],
];

/**
 * Whether a placed part's mass lies as the reference's: a witness that does not look at faces, and whose products tell
 * a mirror image that faces alone do not.
 */
export function sameInertia(reference: Tensor, submission: Tensor, rows: Rigid["rows"]): boolean {
  const placed = turned(submission, rows),
    near = SAME_INERTIA * (reference[0][0] + reference[1][1] + reference[2][2]);
  return reference.every((row, i) => row.every((v, k) => Math.abs(v - placed[i]![k]!) <= near));
}
