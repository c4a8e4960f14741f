import { OFFSET_JOIN, SAME_VOLUME } from "./tolerance";
import type { TopoDS_Shape } from "replicad-opencascadejs";
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
  return kernel.guard("shelling", () => {
    const oc = kernel.library,
      { shapes } = faceShapes(kernel, solid.shape);
    const list = new oc.NCollection_List_TopoDS_Shape();
    for (const i of open) list.Append(shapes[i]!);
    const [only] = explore(kernel, solid.shape, "SOLID");
    const make = new oc.BRepOffsetAPI_MakeThickSolid();
    kernel.run(() =>
      make.MakeThickSolidByJoin(
        only ?? solid.shape,
        list,
        -thickness,
        OFFSET_JOIN,
        oc.BRepOffset_Mode.BRepOffset_Skin,
        false,
        false,
        oc.GeomAbs_JoinType.GeomAbs_Intersection,
        false,
      ),
    );
    if (!make.IsDone()) {
      kernel.release(list, make);
      throw new KernelFault("the wall cannot be made that thick");
    }
    const shape = make.Shape();
    if (isBroken(kernel, solid.shape, shape, thickness)) {
      kernel.release(list, make, shape, only);
      throw new KernelFault("the wall cannot be made that thick");
    }
    const result = carried(kernel, shape, make, [solid], (give) => {
      shapes.forEach((f: TopoDS_Shape, i) => {
        const [name] = solid.names[i] ?? [];
        if (name) drain(kernel, make.Generated(f), (g) => give(g, [{ step, role: "inner", of: formatFace(name) }]));
      });
    });
    kernel.release(list, make, only);
    return result;
  });
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
