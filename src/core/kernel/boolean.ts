import type { TopoDS_Shape } from "replicad-opencascadejs";
import { carried } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { roughVolume } from "./properties";
import { explore, faceShapes, type Solid } from "./solid";

export type BooleanKind = "fuse" | "cut" | "common";

/**
 * Joins, subtracts or intersects bodies; names of faces follow through the operation's own history.
 * Neighbouring faces on one carrier are merged. Arguments are left alone.
 */
export function combine(kernel: Kernel, kind: BooleanKind, body: Solid, tools: readonly Solid[], merge = true): Solid {
  return kernel.guard("combining bodies", () => {
    const oc = kernel.library;
    const make =
      kind === "fuse"
        ? new oc.BRepAlgoAPI_Fuse()
        : kind === "cut"
          ? new oc.BRepAlgoAPI_Cut()
          : new oc.BRepAlgoAPI_Common();
    const args = new oc.NCollection_List_TopoDS_Shape(),
      others = new oc.NCollection_List_TopoDS_Shape();
    args.Append(body.shape);
    for (const t of tools) others.Append(t.shape);
    make.SetArguments(args);
    make.SetTools(others);
    make.SetNonDestructive(true);
    kernel.run(() => make.Build());
    if (make.HasErrors()) {
      kernel.release(args, others, make);
      throw new KernelFault("the two bodies could not be combined");
    }
    const plain = make.Shape();
    if (merge) kernel.run(() => make.SimplifyResult(true, true, 1e-9));
    const shape = make.Shape();
    const bad = merge && isSpoilt(kernel, plain, shape);
    kernel.release(plain, ...(bad ? [shape] : []));
    const solid = bad ? undefined : carried(kernel, shape, make, [body, ...tools]);
    kernel.release(args, others, make);
    return solid ?? combine(kernel, kind, body, tools, false);
  });
}

/**
 * Merging round faces that close on themselves (two half turns) goes wrong in the library: the shell is left open, or
 * a face turned inside out. @param plain the shape before merging
 */
function isSpoilt(kernel: Kernel, plain: TopoDS_Shape, merged: TopoDS_Shape): boolean {
  if (count(kernel, merged) === count(kernel, plain)) return false;
  const { BRep_Tool } = kernel.library,
    shells = explore(kernel, merged, "SHELL"),
    open = shells.some((s) => !BRep_Tool.IsClosed(s));
  kernel.release(...shells);
  if (open) return true;
  // cylinders go wrong even where only their ends were merged; of other round faces (dear to measure) only new ones can
  const { index } = faceShapes(kernel, plain);
  return faceShapes(kernel, merged).shapes.some((f) => {
    const type = surfaceType(kernel, f);
    return type !== "GeomAbs_Plane" && (type === "GeomAbs_Cylinder" || index.find(f) < 0) && isInsideOut(kernel, f);
  });
}

function surfaceType(kernel: Kernel, shape: TopoDS_Shape): string {
  const oc = kernel.library,
    face = oc.TopoDS.Face(shape),
    surface = new oc.BRepAdaptor_Surface(face, false),
    type = String(surface.GetType());
  kernel.release(surface, face);
  return type;
}

function isInsideOut(kernel: Kernel, face: TopoDS_Shape): boolean {
  const props = new kernel.library.GProp_GProps();
  kernel.library.BRepGProp.SurfaceProperties(face, props, false, false);
  const area = props.Mass();
  kernel.release(props);
  return area <= 0;
}

/** Whether an operation took nothing away: the very same faces, or as many with the same volume (a face that was only touched is made anew). */
export function isUnchanged(kernel: Kernel, before: Solid, after: Solid): boolean {
  if (before.names.length !== after.names.length) return false;
  const { index } = faceShapes(kernel, before.shape),
    same = faceShapes(kernel, after.shape).shapes.every((f) => index.find(f) >= 0);
  if (same) return true;
  const [was, is] = [roughVolume(kernel, before.shape), roughVolume(kernel, after.shape)];
  return is >= was * (1 - 1e-12);
}

export const isEmpty = (kernel: Kernel, s: Solid): boolean => count(kernel, s.shape, "SOLID") === 0;

/** How many sub-shapes there are, without taking hold of any. */
function count(kernel: Kernel, shape: TopoDS_Shape, kind: "FACE" | "SOLID" = "FACE"): number {
  const { TopExp_Explorer, TopAbs_ShapeEnum } = kernel.library,
    explorer = new TopExp_Explorer(shape, TopAbs_ShapeEnum[`TopAbs_${kind}`] as never);
  let n = 0;
  for (; explorer.More(); explorer.Next()) n++;
  explorer.delete();
  return n;
}
