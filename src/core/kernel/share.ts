import { distance3, perAxis, type Vec3 } from "@/core/geometry/vector";
import { meshOf } from "./mesh";
import type { Kernel } from "./opencascade";
import { roughBoxOf } from "./properties";
import { explore, type Solid } from "./solid";

/** How far below a face of the tool a place is looked at, as shares of the tool's size: thick walls first. */
const DEPTHS = [0.02, 0.002];
/** Facets as coarse as this share of the size are near enough to step off from. */
const COARSE = 0.01;

/**
 * Whether some place lies inside both bodies, asked without a boolean: one that is silently wrong hands its argument
 * back and finds nothing in common. Looks below the middle of every face of the tool, so a yes is sure, a no is not.
 */
export function shareMaterial(kernel: Kernel, body: Solid, tool: Solid): boolean {
  const box = roughBoxOf(kernel, tool.shape),
    size = distance3(box.min, box.max);
  return kernel.guard("looking for what two bodies share", () => {
    const bodies = explore(kernel, body.shape, "SOLID"),
      tools = explore(kernel, tool.shape, "SOLID");
    const isIn = (list: typeof bodies, p: Vec3) => list.some((s) => isInside(kernel, s, p));
    const found = below(kernel, tool, size).some((p) => isIn(tools, p) && isIn(bodies, p));
    kernel.release(...bodies, ...tools);
    return found;
  });
}

/** Places below the largest facet of each face. */
function below(kernel: Kernel, solid: Solid, size: number): Vec3[] {
  const { positions: values, normals: n, triangles: t, faces } = meshOf(kernel, solid, COARSE * size);
  const corner = (i: number, of: Float32Array): Vec3 => [of[3 * i] ?? 0, of[3 * i + 1] ?? 0, of[3 * i + 2] ?? 0];
  const span = (k: number) => {
    const [a, b, c] = [0, 1, 2].map((i) => corner(t[k + i] ?? 0, values)) as [Vec3, Vec3, Vec3];
    return Math.min(distance3(a, b), distance3(b, c), distance3(c, a));
  };
  return faces.flatMap(({ start, count }) => {
    const facets = Array.from({ length: count / 3 }, (_, i) => start + 3 * i);
    const best = facets.reduce((a, b) => (span(b) > span(a) ? b : a), start);
    const middle = (of: Float32Array, axis: number) =>
      [0, 1, 2].reduce((s, i) => s + (of[3 * (t[best + i] ?? 0) + axis] ?? 0) / 3, 0);
    return DEPTHS.map((d) => perAxis((a) => middle(values, a) - d * size * middle(n, a)));
  });
}

function isInside(kernel: Kernel, solid: ReturnType<typeof explore>[number], [x, y, z]: Vec3): boolean {
  const oc = kernel.library,
    at = new oc.gp_Pnt(x, y, z),
    make = new oc.BRepBuilderAPI_MakeVertex(at),
    vertex = make.Vertex();
  const extrema = new oc.BRepExtrema_DistShapeShape(vertex, solid);
  const inside = extrema.InnerSolution();
  kernel.release(extrema, vertex, make, at);
  return inside;
}
