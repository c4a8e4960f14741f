import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Kernel } from "./opencascade";

/** How a face came to be: which step made it, in which role, from which sketch curve. */
export interface FaceName {
  readonly step: string;
  readonly role: "side" | "start" | "end";
  readonly curve?: string;
}

/** Written form of a face name: `extrude1/side/l2`. Faces that share one (a split face) are told apart by ~2, ~3 in order of place. */
export const faceKey = (n: FaceName): string => [n.step, n.role, n.curve].filter(Boolean).join("/");

/**
 * A body, or several, with the names of its faces in the order the explorer meets them. A merged face carries
 * the names of all it was merged from, the oldest first.
 */
export interface Solid {
  readonly shape: TopoDS_Shape;
  readonly names: readonly (readonly FaceName[])[];
}

/** Sub-shapes of a kind in explorer order. The caller releases them. */
export function explore(kernel: Kernel, shape: TopoDS_Shape, kind: "FACE" | "EDGE" | "SOLID" | "SHELL" | "WIRE"): TopoDS_Shape[] {
  const { TopExp_Explorer, TopAbs_ShapeEnum } = kernel.library;
  const list: TopoDS_Shape[] = [];
  const explorer = new TopExp_Explorer(shape, TopAbs_ShapeEnum[`TopAbs_${kind}`] as never);
  for (; explorer.More(); explorer.Next()) list.push(explorer.Current());
  explorer.delete();
  return list;
}

/** The place of shapes in a list, by identity. This build binds no shape maps, so it looks through the list. */
export class ShapeIndex {
  constructor(private readonly shapes: readonly TopoDS_Shape[]) {}
  /** Number from 0, or -1. */
  find(shape: TopoDS_Shape): number {
    return this.shapes.findIndex((s) => s.IsSame(shape));
  }
}

/** Sub-shapes of a kind, each once, in explorer order, and where to find one. The caller releases the shapes. */
export function distinct(kernel: Kernel, shape: TopoDS_Shape, kind: "FACE" | "EDGE"): { index: ShapeIndex; shapes: TopoDS_Shape[] } {
  const shapes: TopoDS_Shape[] = [];
  for (const s of explore(kernel, shape, kind)) {
    // a face or edge met again stands near the end of the list
    let known = false;
    for (let i = shapes.length - 1; i >= 0 && !known; i--) known = shapes[i]!.IsSame(s);
    if (known) s.delete();
    else shapes.push(s);
  }
  return { index: new ShapeIndex(shapes), shapes };
}
