import type { TopoDS_Shape } from "replicad-opencascadejs";
import { add3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";
import { explore, faceShapes, ShapeIndex, type Solid } from "./solid";

/**
 * Triangles and edge lines for display only; no number is ever taken from them. Plain arrays that travel between
 * threads.
 */
export interface Mesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
  /** Per face, in explorer order: where its triangles start and how many indices it has. */
  readonly faces: readonly { readonly start: number; readonly count: number }[];
  /** Polylines of the edges, seams left out. */
  readonly edges: readonly Float32Array[];
  /** Which of them run where two faces go on into each other without a corner. */
  readonly smooth: readonly boolean[];
  /** A face that each of them bounds. */
  readonly owners: readonly number[];
}

/**
 * Facets a body. @param deflection largest distance between facet and surface, mm
 * @param angle largest turn between neighbouring facets, radians
 */
export function meshOf(kernel: Kernel, solid: Solid, deflection: number, angle = 0.2): Mesh {
  return kernel.guard("drawing", () => {
    const oc = kernel.library,
      own = faceShapes(kernel, solid.shape);
    const net = oc.ReplicadMeshExtractor.extract(solid.shape, deflection, angle, false);
    // the arrays lie in the library's heap; they are copied out before anything else is asked of it
    const heap = (oc as unknown as { wasmMemory: { buffer: ArrayBuffer } }).wasmMemory.buffer;
    const positions = new Float32Array(heap, net.getVerticesPtr(), net.getVerticesSize()).slice(),
      normals = new Float32Array(heap, net.getNormalsPtr(), net.getNormalsSize()).slice();
    const triangles = new Uint32Array(heap, net.getTrianglesPtr(), net.getTrianglesSize()).slice(),
      groups = new Int32Array(heap, net.getFaceGroupsPtr(), net.getFaceGroupsSize()).slice();
    net.delete();
    // three numbers a face: where its triangles start, how many indices, and its hash
    const faces = Array.from({ length: groups.length / 3 }, (_, k) => ({
      start: groups[3 * k]!,
      count: groups[3 * k + 1]!,
    }));
    const { lines: edges, smooth, owners } = edgeLines(kernel, own.shapes, angle);
    return { positions, normals, triangles, faces, edges, smooth, owners };
  });
}

/** Lines are drawn at least this fine, radians: they cost little, and it is they that look angular. */
const FINE = 0.15;

/** Edges as polylines; a seam (an edge that closes one face on itself) is not an edge to look at. */
function edgeLines(
  kernel: Kernel,
  faces: readonly TopoDS_Shape[],
  angle: number,
): { lines: Float32Array[]; smooth: boolean[]; owners: number[] } {
  const oc = kernel.library;
  const index = new ShapeIndex(kernel),
    seams = new Set<number>(),
    ownerOf: number[] = [];
  for (const [place, f] of faces.entries()) {
    const met = new Set<number>();
    for (const shape of explore(kernel, f, "EDGE")) {
      const k = index.place(shape);
      // a face comes upon its seam from both sides
      if (met.has(k)) seams.add(k);
      met.add(k);
      ownerOf[k] = place;
      if (index.shapes[k] !== shape) shape.delete();
    }
  }
  const { shapes } = index;
  const lines: Float32Array[] = [],
    smooth: boolean[] = [],
    owners: number[] = [];
  shapes.forEach((s, i) => {
    if (!seams.has(i)) {
      const edge = oc.TopoDS.Edge(s);
      lines.push(Float32Array.from(edgePoints(kernel, edge, Math.min(angle, FINE))));
      owners.push(ownerOf[i]!);
      smooth.push(String(oc.BRep_Tool.MaxContinuity(edge)) !== "GeomAbs_C0");
      edge.delete();
    }
  });
  kernel.release(...shapes);
  return { lines, smooth, owners };
}

/** Points along an edge, x y z after each other. */
export function edgePoints(kernel: Kernel, edge: TopoDS_Shape, angle: number): Float64Array {
  const adaptor = new kernel.library.BRepAdaptor_Curve(edge);
  const first = adaptor.FirstParameter(),
    last = adaptor.LastParameter();
  const type = String(adaptor.GetType());
  const n =
    type === "GeomAbs_Line" ? 1 : type === "GeomAbs_Circle" ? Math.max(4, Math.ceil((last - first) / angle)) : 32;
  const points = new Float64Array(3 * (n + 1)),
    at = (u: number): Vec3 => {
      const p = adaptor.EvalD0(u),
        v: Vec3 = [p.X(), p.Y(), p.Z()];
      p.delete();
      return v;
    };
  let place = at;
  if (type === "GeomAbs_Circle") {
    // three points a quarter turn apart give the whole circle: asking the library for each costs more than drawing
    const p = at(first),
      q = at(first + Math.PI / 2),
      o = scale3(add3(p, at(first + Math.PI)), 0.5),
      x = sub3(p, o),
      y = sub3(q, o);
    place = (u) => add3(o, add3(scale3(x, Math.cos(u - first)), scale3(y, Math.sin(u - first))));
  }
  for (let i = 0; i <= n; i++) points.set(place(first + ((last - first) * i) / n), 3 * i);
  adaptor.delete();
  return points;
}
