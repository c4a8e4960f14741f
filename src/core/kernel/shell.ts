import { OFFSET_JOIN, SAME_VOLUME } from "./tolerance";
import type { GeomAbs_JoinType, TopoDS_Shape } from "replicad-opencascadejs";
import { carried, drain } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { roughVolume } from "./properties";
import { formatFace } from "@/core/naming/names";
import { explore, faceShapes, type Solid } from "./solid";

/**
 * Hollows a body out: faces of `open` (places in explorer order) are taken away, the others keep a wall.
 * @param thickness mm; inward where positive, outward where negative
 * The new inner faces are named `step/inner/NAME` after the face they are offset from.
 */
export function shelled(kernel: Kernel, solid: Solid, open: readonly number[], thickness: number, step: string): Solid {
  const { GeomAbs_Intersection, GeomAbs_Arc } = kernel.library.GeomAbs_JoinType;
  // walls carried on until they meet keep sharp corners sharp; where they do not meet, a rounding between them may
  for (const join of [GeomAbs_Intersection, GeomAbs_Arc])
    try {
      const result = kernel.guard("shelling", () => walled(kernel, solid, open, thickness, join, step));
      if (result) return result;
    } catch (fault) {
      if (!(fault instanceof KernelFault)) throw fault;
    }
  throw new KernelFault("the wall cannot be made that thick");
}

/** The body with walls whose offset faces are joined in one of the library's ways; undefined where that fails. */
function walled(
  kernel: Kernel,
  solid: Solid,
  open: readonly number[],
  thickness: number,
  join: GeomAbs_JoinType,
  step: string,
): Solid | undefined {
  const oc = kernel.library,
    { shapes } = faceShapes(kernel, solid.shape);
  const list = new oc.NCollection_List_TopoDS_Shape();
  for (const i of open) list.Append(shapes[i]!);
  const solids = explore(kernel, solid.shape, "SOLID");
  const make = new oc.BRepOffsetAPI_MakeThickSolid();
  try {
    kernel.run(() =>
      make.MakeThickSolidByJoin(
        solids[0] ?? solid.shape,
        list,
        -thickness,
        OFFSET_JOIN,
        oc.BRepOffset_Mode.BRepOffset_Skin,
        true,
        false,
        join,
        false,
      ),
    );
    if (!make.IsDone()) return undefined;
    const shape = make.Shape();
    if (isBroken(kernel, solid.shape, shape, thickness)) {
      kernel.release(shape);
      return undefined;
    }
    return carried(kernel, shape, make, [solid], (give) => {
      shapes.forEach((f: TopoDS_Shape, i) => {
        const [name] = solid.names[i] ?? [];
        if (name) drain(kernel, make.Generated(f), (g) => give(g, [{ step, role: "inner", of: formatFace(name) }]));
      });
    });
  } finally {
    kernel.release(list, make, ...solids);
  }
}

/**
 * The library also "makes" walls thicker than the body: turned inside out, torn, or with more material than there
 * was.
 */
function isBroken(kernel: Kernel, before: TopoDS_Shape, after: TopoDS_Shape, thickness: number): boolean {
  const check = kernel.run(() => new kernel.library.BRepCheck_Analyzer(after, true, false, false)),
    valid = kernel.run(() => check.IsValid());
  kernel.release(check);
  if (!valid) return true;
  const [was, is] = [roughVolume(kernel, before), roughVolume(kernel, after)];
  return is <= 0 || (thickness > 0 && is >= was * (1 - SAME_VOLUME));
}
