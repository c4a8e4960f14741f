import { combine } from "./boolean";
import { carrierOf } from "./recognise";
import type { Kernel } from "./opencascade";
import { formatFace, type FaceName } from "@/core/naming/names";
import { faceShapes, explore, type Solid } from "./solid";

/**
 * A flat face moved along its normal, out of the material where `by` is positive (mm): a prism over it is added or
 * taken away. @returns undefined where the face is not there or not flat
 */
export function pushed(kernel: Kernel, solid: Solid, key: string, by: number): Solid | undefined {
  return kernel.guard("moving a face", () => {
    const oc = kernel.library,
      { shapes } = faceShapes(kernel, solid.shape);
    const i = solid.names.findIndex((list) => list.some((n) => formatFace(n) === key)),
      shape = shapes[i];
    const face = shape && oc.TopoDS.Face(shape),
      carrier = face && carrierOf(kernel, face);
    if (!face || carrier?.kind !== "plane") return undefined;
    const [x, y, z] = carrier.normal,
      rise = new oc.gp_Vec(x * by, y * by, z * by),
      make = new oc.BRepPrimAPI_MakePrism(face, rise, true, true);
    const prism = make.Shape(),
      faces = explore(kernel, prism, "FACE");
    // the moved face keeps its name; the sides merge with the neighbours they lie on
    const last = make.LastShape(),
      names = faces.map((f): FaceName[] => (f.IsSame(last) ? [...solid.names[i]!] : []));
    const moved = combine(kernel, by > 0 ? "fuse" : "cut", solid, [{ shape: prism, names }]);
    kernel.release(last, prism, ...faces, make, rise, face);
    return moved;
  });
}
