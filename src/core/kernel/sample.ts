import type { Vec3 } from "@/core/geometry/vector";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Kernel } from "./opencascade";
import { point } from "./primitives";

/** Shares of a face's two parameters that no drawing takes: powers of the golden ratio and of the root of two. */
const SHARES: readonly (readonly [number, number])[] = Array.from({ length: 12 }, (_, i) => [
  ((i + 1) * 0.6180339887498949) % 1,
  ((i + 1) * 0.4142135623730951) % 1,
]);

/** Points of the surface of a face at irrational places, mm; some may lie outside the face's outline. */
export function pointsOfSurface(kernel: Kernel, shape: TopoDS_Shape): Vec3[] {
  const oc = kernel.library,
    face = oc.TopoDS.Face(shape),
    surface = new oc.BRepAdaptor_Surface(face, true);
  const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()],
    [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
  const points = SHARES.map(([s, t]): Vec3 => {
    const p = surface.EvalD0(u0 + s * (u1 - u0), v0 + t * (v1 - v0));
    const at: Vec3 = [p.X(), p.Y(), p.Z()];
    kernel.release(p);
    return at;
  });
  kernel.release(surface, face);
  return points;
}

/** How far a point is from a face as it is bounded, mm. */
export function distanceToFace(kernel: Kernel, shape: TopoDS_Shape, p: Vec3): number {
  const oc = kernel.library,
    at = point(kernel, p),
    make = new oc.BRepBuilderAPI_MakeVertex(at),
    vertex = make.Vertex();
  const extrema = new oc.BRepExtrema_DistShapeShape(vertex, shape);
  const value = extrema.Value();
  kernel.release(extrema, vertex, make, at);
  return value;
}
