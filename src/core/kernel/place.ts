import type { Rigid } from "@/core/geometry/rigid";
import type { Kernel } from "./opencascade";
import type { Solid } from "./solid";

/** The body moved rigidly; names stay. */
export function placed(kernel: Kernel, solid: Solid, m: Rigid): Solid {
  return kernel.guard("placing", () => {
    const oc = kernel.library;
    const t = new oc.gp_Trsf();
    const [a, b, c] = m.rows;
    t.SetValues(a[0], a[1], a[2], m.shift[0], b[0], b[1], b[2], m.shift[1], c[0], c[1], c[2], m.shift[2]);
    const make = new oc.BRepBuilderAPI_Transform(solid.shape, t, true, false);
    const shape = make.Shape();
    kernel.release(make, t);
    return { shape, names: solid.names };
  });
}
