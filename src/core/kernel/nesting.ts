import type { Vec3 } from "@/core/geometry/vector";
import { combine, isEmpty } from "./boolean";
import type { Kernel } from "./opencascade";
import { boxOf } from "./properties";
import { explore, type Solid } from "./solid";
import { piecesOf } from "./trim";

/** Whether one of several bodies lies in another: in its material, or in a hollow of it. */
export function nestingOf(kernel: Kernel, solid: Solid): "in the material" | "in a hollow" | undefined {
  const pieces = piecesOf(kernel, solid).map((piece) => ({ piece, box: boxOf(kernel, piece.shape) }));
  let hollow = false,
    material = false;
  for (const inner of pieces)
    for (const outer of pieces) {
      if (inner === outer || material || !isWithin(inner.box, outer.box)) continue;
      const both = combine(kernel, "common", outer.piece, [inner.piece], false);
      if (!isEmpty(kernel, both)) material = true;
      else hollow ||= hasHollow(kernel, outer.piece);
      kernel.release(both.shape);
    }
  kernel.release(...pieces.map((p) => p.piece.shape));
  if (material) return "in the material";
  return hollow ? "in a hollow" : undefined;
}

/** A body with a hollow has a shell more than its outside. */
function hasHollow(kernel: Kernel, solid: Solid): boolean {
  const shells = explore(kernel, solid.shape, "SHELL");
  kernel.release(...shells);
  return shells.length > 1;
}

type Box = { readonly min: Vec3; readonly max: Vec3 };
const isWithin = (a: Box, b: Box): boolean => [0, 1, 2].every((i) => a.min[i]! >= b.min[i]! && a.max[i]! <= b.max[i]!);
