import type { TopoDS_Shape } from "replicad-opencascadejs";
import { KernelFault, type Kernel } from "./opencascade";
import { distinct, type FaceName, type Solid } from "./solid";

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
    const shape = make.Shape();
    const { index, shapes: faces } = distinct(kernel, shape, "FACE");
    const names: FaceName[][] = faces.map(() => []);
    const give = (f: TopoDS_Shape, from: readonly FaceName[]) => {
      const k = index.find(f);
      if (k >= 0) names[k]!.push(...from.filter((n) => !names[k]!.some((o) => o.step === n.step && o.role === n.role && o.curve === n.curve)));
      return k >= 0;
    };
    for (const part of [body, ...tools]) {
      const own = distinct(kernel, part.shape, "FACE");
      own.shapes.forEach((f, i) => {
        // look for the face itself first: the history calls some survivors deleted
        if (!give(f, part.names[i]!)) {
          const list = make.Modified(f);
          while (list.Size() > 0) {
            const m = list.First();
            give(m, part.names[i]!);
            list.RemoveFirst();
            kernel.release(m);
          }
          kernel.release(list);
        }
        f.delete();
      });
    }
    kernel.release(...faces, args, others, make);
    return { shape, names };
  });
}
