import type { Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Topology } from "@/core/kernel/topology";
import type { Reading, Thing } from "./measure";

/**
 * The smallest distance between two things as they are bounded, by the kernel's extrema; exact. 0 where they touch.
 * Edges are meant by their place among all of the body's, seams included.
 */
export function nearest(kernel: Kernel, t: Topology, a: Thing, b: Thing): Reading {
  const shape = ({ kind, index }: Thing) =>
    (kind === "face" ? t.faces : kind === "edge" ? t.edges : t.vertices)[index]!;
  return kernel.guard("measuring the smallest distance", () => {
    const extrema = new kernel.library.BRepExtrema_DistShapeShape(shape(a), shape(b));
    const point = extrema.PointOnShape1(1),
      q = extrema.PointOnShape2(1);
    const between: [Vec3, Vec3] = [
        [point.X(), point.Y(), point.Z()],
        [q.X(), q.Y(), q.Z()],
      ],
      value = extrema.Value();
    kernel.release(point, q, extrema);
    return { what: "distance", quantity: "length", value, between };
  });
}
