import { determinant, type Rigid } from "@/core/geometry/rigid";
import type { Kernel } from "./opencascade";
import { formatFace, type FaceName } from "@/core/naming/names";
import { type Solid } from "./solid";

/** The body moved rigidly, or mirrored where the motion turns it over; names stay. */
export function placed(kernel: Kernel, solid: Solid, m: Rigid): Solid {
  return kernel.guard("placing", () => {
    const oc = kernel.library;
    const t = new oc.gp_Trsf();
    const [a, b, c] = m.rows;
    t.SetValues(a[0], a[1], a[2], m.shift[0], b[0], b[1], b[2], m.shift[1], c[0], c[1], c[2], m.shift[2]);
    // a proper motion only moves the place of the shape; its surfaces are shared
    const make = kernel.run(() => new oc.BRepBuilderAPI_Transform(solid.shape, t, determinant(m.rows) < 0, false));
    const shape = make.Shape();
    kernel.release(make, t);
    return { shape, names: solid.names };
  });
}

/** The body at another size, about the origin; names stay. */
export function scaled(kernel: Kernel, solid: Solid, by: number): Solid {
  return kernel.guard("scaling", () => {
    const oc = kernel.library;
    const t = new oc.gp_Trsf(),
      origin = new oc.gp_Pnt(0, 0, 0);
    t.SetScale(origin, by);
    const make = kernel.run(() => new oc.BRepBuilderAPI_Transform(solid.shape, t, true, false));
    const shape = make.Shape();
    kernel.release(make, t, origin);
    return { shape, names: solid.names };
  });
}

/** Names of a copy: `step/role/NAME` after the face each is an image of. */
export const renamed = (solid: Solid, step: string, role: string): Solid => ({
  shape: solid.shape,
  names: solid.names.map((list) => list.map((n): FaceName => ({ step, role, of: formatFace(n) }))),
});
