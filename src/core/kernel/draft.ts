import type { TopoDS_Shape } from "replicad-opencascadejs";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { carried } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { direction, point } from "./primitives";
import { faceShapes, type Solid } from "./solid";

/**
 * A prism with its sides leaning. They turn about where they meet the frame's plane.
 * @param angle radians, not 0; positive: the body narrows along the frame's normal
 * @returns undefined where the sides cannot lean so
 */
export function drafted(kernel: Kernel, solid: Solid, frame: Frame, angle: number): Solid | undefined {
  try {
    return kernel.guard("leaning the sides", () => {
      const oc = kernel.library,
        { shapes } = faceShapes(kernel, solid.shape);
      const at = point(kernel, frame.origin),
        along = direction(kernel, normalOf(frame)),
        plane = new oc.gp_Pln(at, along);
      const make = new oc.BRepOffsetAPI_DraftAngle(solid.shape);
      for (const [i, f] of shapes.entries()) {
        if (solid.names[i]?.[0]?.role !== "side") continue;
        const face = oc.TopoDS.Face(f);
        make.Add(face, along, angle, plane, true);
        kernel.release(face);
        if (!make.AddDone()) throw new KernelFault("this side cannot lean");
      }
      make.Build();
      if (!make.IsDone()) throw new KernelFault("the sides cannot lean so far");
      // of this operation only ModifiedShape answers
      const Modified = (f: TopoDS_Shape) => {
        const list = new oc.NCollection_List_TopoDS_Shape(),
          moved = make.ModifiedShape(f);
        list.Append(moved);
        moved.delete();
        return list;
      };
      const done = carried(kernel, make.Shape(), { Modified }, [solid]);
      kernel.release(make, plane, at, along);
      return done;
    });
  } catch (e) {
    if (e instanceof KernelFault) return undefined;
    throw e;
  }
}
