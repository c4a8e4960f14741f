import type { BRepFilletAPI_MakeChamfer, BRepFilletAPI_MakeFillet, TopoDS_Shape } from "replicad-opencascadejs";
import { carried, drain } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { type FaceName } from "@/core/naming/names";
import { explore, type Solid } from "./solid";

/** One edge to be rounded, or cut off. `id` names the faces that come of it: step/role/id. */
export interface Rounding {
  readonly id: string;
  readonly edge: TopoDS_Shape;
  /** mm */
  readonly radius: number;
}
/** `first` is measured on `face`, `second` on the other; or an angle (radians) from `face`. */
export interface Bevel {
  readonly id: string;
  readonly edge: TopoDS_Shape;
  readonly face: TopoDS_Shape;
  readonly first: number;
  readonly second: { readonly distance: number } | { readonly angle: number };
}

type Maker = BRepFilletAPI_MakeFillet | BRepFilletAPI_MakeChamfer;

/**
 * Builds, and names what came of each edge (with the edges that go on from it without a corner) and of corners
 * between them.
 */
function blended(
  kernel: Kernel,
  solid: Solid,
  make: Maker,
  edges: readonly { id: string; edge: TopoDS_Shape }[],
  step: string,
  role: string,
): Solid | undefined {
  const oc = kernel.library;
  kernel.run(() => make.Build());
  if (!make.IsDone()) return undefined;
  const shape = make.Shape();
  const check = kernel.run(() => new oc.BRepCheck_Analyzer(shape, true, false, false)),
    valid = kernel.run(() => check.IsValid()) && explore(kernel, shape, "SOLID").length > 0;
  kernel.release(check);
  // a rounding wider than its wall is made, but breaks through it
  if (!valid) return undefined;
  const named = carried(kernel, shape, make, [solid], (give) => {
    for (const { id, edge } of edges) {
      const name: FaceName[] = [{ step, role, of: id }],
        e = oc.TopoDS.Edge(edge),
        contour = make.Contour(e);
      for (let k = 1; contour > 0 && k <= make.NbEdges(contour); k++) {
        const part = make.Edge(contour, k);
        drain(kernel, make.Generated(part), (f) => give(f, name));
        kernel.release(part);
      }
      kernel.release(e);
    }
  });
  // what is left came of corners where several edges meet
  return { shape, names: named.names.map((n): readonly FaceName[] => (n.length ? n : [{ step, role: "corner" }])) };
}

/** Rounds edges. @returns undefined where the radii cannot be made */
export function fillet(kernel: Kernel, solid: Solid, list: readonly Rounding[], step: string): Solid | undefined {
  return attempt(
    () => {
      const make = kernel.run(() => new kernel.library.BRepFilletAPI_MakeFillet(solid.shape));
      for (const r of list) {
        const e = kernel.library.TopoDS.Edge(r.edge);
        kernel.run(() => make.Add(r.radius, e));
        kernel.release(e);
      }
      const done = blended(kernel, solid, make, list, step, "round");
      kernel.release(make);
      return done;
    },
    kernel,
    "rounding edges",
  );
}

/** Cuts edges off. @returns undefined where the sizes cannot be made */
export function chamfer(kernel: Kernel, solid: Solid, list: readonly Bevel[], step: string): Solid | undefined {
  return attempt(
    () => {
      const oc = kernel.library,
        make = kernel.run(() => new oc.BRepFilletAPI_MakeChamfer(solid.shape));
      for (const b of list) {
        const e = oc.TopoDS.Edge(b.edge),
          f = oc.TopoDS.Face(b.face);
        const { first, second } = b;
        kernel.run(() =>
          "angle" in second ? make.AddDA(first, second.angle, e, f) : make.Add(first, second.distance, e, f),
        );
        kernel.release(e, f);
      }
      const done = blended(kernel, solid, make, list, step, "bevel");
      kernel.release(make);
      return done;
    },
    kernel,
    "cutting edges off",
  );
}

/** An exception of the library here means that the size cannot be made. */
function attempt(work: () => Solid | undefined, kernel: Kernel, what: string): Solid | undefined {
  try {
    return kernel.guard(what, work);
  } catch (e) {
    if (e instanceof KernelFault) return undefined;
    throw e;
  }
}

/** The largest share (0 to 1) of the wanted size that can be made, by halving; 0 where none could. */
export function largestShare(make: (share: number) => Solid | undefined, release: (s: Solid) => void): number {
  const works = (share: number) => {
    const s = make(share);
    if (s) release(s);
    return s !== undefined;
  };
  let low = 0,
    high = 1;
  for (let i = 0; i < 10; i++) {
    const middle = (low + high) / 2;
    if (works(middle)) low = middle;
    else high = middle;
  }
  return low;
}
