import { COINCIDENT } from "@/core/geometry/tolerance";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { carried } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { direction, point } from "./primitives";
import { facesOf } from "./faces";
import { boxOf } from "./properties";
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
      if (!runsPastTip(kernel, done)) return done;
      kernel.release(done.shape);
      throw new KernelFault("a round side comes to its tip before the end");
    });
  } catch (e) {
    if (e instanceof KernelFault) return undefined;
    throw e;
  }
}

/**
 * Whether a side has become a cone whose tip lies within the body's height: beyond it the library goes on inside out.
 */
function runsPastTip(kernel: Kernel, solid: Solid): boolean {
  const { min, max } = boxOf(kernel, solid.shape);
  return facesOf(kernel, solid).some(({ carrier: c }) => {
    if (c.kind !== "cone") return false;
    // the corner of the box farthest along the axis, and the nearest
    const along = (pick: (i: number) => number) =>
      [0, 1, 2].reduce((s, i) => s + c.axis[i]! * (pick(i) - c.tip[i]!), 0);
    const low = along((i) => (c.axis[i]! > 0 ? min[i]! : max[i]!)),
      high = along((i) => (c.axis[i]! > 0 ? max[i]! : min[i]!));
    return low < -COINCIDENT && high > COINCIDENT;
  });
}
