import { carried } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import type { Solid } from "./solid";

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
    make.Build();
    if (make.HasErrors()) {
      kernel.release(args, others, make);
      throw new KernelFault("the two bodies could not be combined");
    }
    if (merge) make.SimplifyResult(true, true, 1e-9);
    const solid = carried(kernel, make.Shape(), make, [body, ...tools]);
    kernel.release(args, others, make);
    return solid;
  });
}
