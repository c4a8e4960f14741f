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

/** Sub-shapes of a kind, each once, with a map to look one up. The caller releases `map` and the shapes. */
export function distinct(kernel: Kernel, shape: TopoDS_Shape, kind: "FACE" | "EDGE") {
  const map = new kernel.library.NCollection_IndexedMap_TopoDS_Shape_TopTools_ShapeMapHasher();
  const shapes = explore(kernel, shape, kind).filter((s) => {
    const fresh = !map.Contains(s);
    if (fresh) map.Add(s);
    else s.delete();
    return fresh;
  });
  return { map, shapes };
}
