import type { NCollection_List_TopoDS_Shape, TopoDS_Shape } from "replicad-opencascadejs";
import type { Kernel } from "./opencascade";
import { formatFace, type FaceName } from "@/core/naming/names";
import { faceShapes, type Solid } from "./solid";

/** What an operation of the library tells of where faces went. */
export interface Maker {
  Modified(s: TopoDS_Shape): NCollection_List_TopoDS_Shape;
}

/** Runs through a list of the library and gives it back. */
export function drain(kernel: Kernel, list: NCollection_List_TopoDS_Shape, visit: (s: TopoDS_Shape) => void): void {
  // First() on an empty list throws
  while (list.Size() > 0) {
    const s = list.First();
    visit(s);
    list.RemoveFirst();
    kernel.release(s);
  }
  kernel.release(list);
}

/** Gives a face of the result a name; says whether it is there. */
export type Give = (face: TopoDS_Shape, names: readonly FaceName[]) => boolean;

/**
 * Names the faces of a result. Those of the inputs follow by the operation's own history; new ones are named by
 * `fresh`. The history calls some survivors deleted, so a face itself is looked for first.
 */
export function carried(
  kernel: Kernel,
  shape: TopoDS_Shape,
  make: Maker,
  inputs: readonly Solid[],
  fresh?: (give: Give) => void,
): Solid {
  const { index, shapes } = faceShapes(kernel, shape);
  const names: FaceName[][] = shapes.map(() => []);
  const give: Give = (face, from) => {
    const k = index.find(face);
    if (k >= 0) names[k]!.push(...from.filter((n) => !names[k]!.some((o) => formatFace(o) === formatFace(n))));
    return k >= 0;
  };
  for (const part of inputs) {
    faceShapes(kernel, part.shape).shapes.forEach((f, i) => {
      if (!give(f, part.names[i]!)) drain(kernel, make.Modified(f), (m) => give(m, part.names[i]!));
    });
  }
  fresh?.(give);
  return { shape, names };
}
