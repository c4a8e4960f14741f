import type { TopoDS_Shape } from "replicad-opencascadejs";
import { carried } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { roughVolume } from "./properties";
import { explore, type Solid } from "./solid";

export type BooleanKind = "fuse" | "cut" | "common";

/**
 * Joins, subtracts or intersects bodies; names of faces follow through the operation's own history.
 * Neighbouring faces on one carrier are merged. Arguments are left alone.
 */
export function combine(kernel: Kernel, kind: BooleanKind, body: Solid, tools: readonly Solid[], merge = true): Solid {
  return kernel.guard("combining bodies", () => {
    const oc = kernel.library;
    const make = kind === "fuse" ? new oc.BRepAlgoAPI_Fuse() : kind === "cut" ? new oc.BRepAlgoAPI_Cut() : new oc.BRepAlgoAPI_Common();
    const args = new oc.NCollection_List_TopoDS_Shape(), others = new oc.NCollection_List_TopoDS_Shape();
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
    // taken before: merging works on the faces in place
    const plain = make.Shape(), before = merge ? { faces: count(kernel, plain), volume: roughVolume(kernel, plain) } : undefined;
    if (merge) kernel.run(() => make.SimplifyResult(true, true, 1e-9));
    const shape = make.Shape();
    const bad = before && isSpoilt(kernel, before, shape);
    kernel.release(plain, ...(bad ? [shape] : []));
    const solid = bad ? undefined : carried(kernel, shape, make, [body, ...tools]);
    kernel.release(args, others, make);
    return solid ?? combine(kernel, kind, body, tools, false);
  });
}

/** Merging round faces that close on themselves (two half turns) goes wrong in the library: volume or closedness is lost then. */
function isSpoilt(kernel: Kernel, before: { faces: number; volume: number }, merged: TopoDS_Shape): boolean {
  if (count(kernel, merged) === before.faces) return false;
  const shells = explore(kernel, merged, "SHELL"), open = shells.some((s) => !kernel.library.BRep_Tool.IsClosed(s));
  kernel.release(...shells);
  return open || Math.abs(before.volume - roughVolume(kernel, merged)) > 1e-6 * Math.abs(before.volume);
}

function count(kernel: Kernel, shape: TopoDS_Shape): number {
  const faces = explore(kernel, shape, "FACE");
  kernel.release(...faces);
  return faces.length;
}
