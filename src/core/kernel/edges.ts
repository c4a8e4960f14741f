import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { marked } from "@/core/naming/names";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vector";
import { edgePoints } from "./mesh";
import type { Kernel } from "./opencascade";

/** An edge of a body in numbers, named by the two faces that meet there. mm. */
export interface Edge {
  /** `extrude1/side/l2|extrude1/end`; edges of the same two faces are told apart by ~2, ~3 in order of place. */
  readonly key: string;
  readonly shape:
    | { readonly kind: "line" }
    | {
        readonly kind: "circle";
        readonly centre: Vec3;
        readonly axis: Vec3;
        readonly radius: number;
        readonly whole: boolean;
      }
    | { readonly kind: "other" };
  /** Points along it, first to last. */
  readonly points: readonly Vec3[];
  readonly length: number;
}

/** Names made unique: edges that share one are told apart by ~2, ~3 in order of place. */
export function numbered<E extends Omit<Edge, "key"> & { readonly base: string }>(
  list: readonly E[],
): (Omit<E, "base"> & { key: string })[] {
  const groups = new Map<string, number[]>();
  list.forEach((e, i) => groups.set(e.base, [...(groups.get(e.base) ?? []), i]));
  const middle = (i: number) => list[i]!.points[list[i]!.points.length >> 1]!;
  const keys: string[] = [];
  for (const [base, members] of groups) {
    members.sort((a, b) => {
      const [p, q] = [middle(a), middle(b)],
        k = [0, 1, 2].find((d) => Math.abs(p[d]! - q[d]!) > COINCIDENT);
      return k === undefined ? 0 : p[k]! - q[k]!;
    });
    members.forEach((m, n) => (keys[m] = marked(base, n + 1)));
  }
  return list.map(({ base: _, ...e }, i) => ({ key: keys[i]!, ...e }));
}

/** An edge of the kernel in numbers. */
export function describeEdge(kernel: Kernel, shape: TopoDS_Shape): Omit<Edge, "key"> {
  const oc = kernel.library,
    edge = oc.TopoDS.Edge(shape),
    adaptor = new oc.BRepAdaptor_Curve(edge);
  const type = String(adaptor.GetType()),
    flat = edgePoints(kernel, edge, 0.1);
  const points = Array.from({ length: flat.length / 3 }, (_, i): Vec3 => [
    flat[3 * i]!,
    flat[3 * i + 1]!,
    flat[3 * i + 2]!,
  ]);
  let kind: Edge["shape"] = type === "GeomAbs_Line" ? { kind: "line" } : { kind: "other" };
  if (type === "GeomAbs_Circle") {
    const circle = adaptor.Circle(),
      position = circle.Position(),
      point = position.Location(),
      direction = position.Direction();
    kind = {
      kind: "circle",
      centre: [point.X(), point.Y(), point.Z()],
      axis: [direction.X(), direction.Y(), direction.Z()],
      radius: circle.Radius(),
      whole: Math.abs(adaptor.LastParameter() - adaptor.FirstParameter() - 2 * Math.PI) < SAME_WAY,
    };
    kernel.release(point, direction, position, circle);
  }
  kernel.release(adaptor, edge);
  return { shape: kind, points, length: lengthOf(kernel, shape) };
}

/** Length of an edge, mm. */
export function lengthOf(kernel: Kernel, edge: TopoDS_Shape): number {
  const along = new kernel.library.GProp_GProps();
  kernel.library.BRepGProp.LinearProperties(edge, along, false, false);
  const length = along.Mass();
  kernel.release(along);
  return length;
}
