import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Kernel } from "./opencascade";
import { distinct, type Solid } from "./solid";

/** Triangles and edge lines for display only; no number is ever taken from them. Plain arrays that travel between threads. */
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
    const oc = kernel.library, own = distinct(kernel, solid.shape, "FACE");
    const net = oc.ReplicadMeshExtractor.extract(solid.shape, deflection, angle, false);
    // the arrays lie in the library's heap; they are copied out before anything else is asked of it
    const heap = (oc as unknown as { wasmMemory: { buffer: ArrayBuffer } }).wasmMemory.buffer;
    const positions = new Float32Array(heap, net.getVerticesPtr(), net.getVerticesSize()).slice(), normals = new Float32Array(heap, net.getNormalsPtr(), net.getNormalsSize()).slice();
    const triangles = new Uint32Array(heap, net.getTrianglesPtr(), net.getTrianglesSize()).slice(), groups = new Int32Array(heap, net.getFaceGroupsPtr(), net.getFaceGroupsSize()).slice();
    net.delete();
    // three numbers a face: where its triangles start, how many indices, and its hash
    const faces = Array.from({ length: groups.length / 3 }, (_, k) => ({ start: groups[3 * k]!, count: groups[3 * k + 1]! }));
    const { lines: edges, smooth, owners } = edgeLines(kernel, solid.shape, own.shapes, angle);
    kernel.release(...own.shapes);
    return { positions, normals, triangles, faces, edges, smooth, owners };
  });
}

/** Edges as polylines; a seam (an edge that closes one face on itself) is not an edge to look at. */
function edgeLines(kernel: Kernel, shape: TopoDS_Shape, faceShapes: readonly TopoDS_Shape[], angle: number): { lines: Float32Array[]; smooth: boolean[]; owners: number[] } {
  const oc = kernel.library;
  const { index, shapes } = distinct(kernel, shape, "EDGE");
  const seams = new Set<number>(), ownerOf: number[] = [];
  for (const [place, f] of faceShapes.entries()) {
    const face = oc.TopoDS.Face(f);
    const own = distinct(kernel, f, "EDGE");
    for (const e of own.shapes) {
      const edge = oc.TopoDS.Edge(e);
      const k = index.find(e);
      ownerOf[k] = place;
      if (oc.BRep_Tool.IsClosed(edge, face)) seams.add(k);
      edge.delete();
    }
    kernel.release(...own.shapes, face);
  }
  const lines: Float32Array[] = [], smooth: boolean[] = [], owners: number[] = [];
  shapes.forEach((s, i) => {
    if (!seams.has(i)) {
      const edge = oc.TopoDS.Edge(s);
      lines.push(Float32Array.from(edgePoints(kernel, edge, angle)));
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
  const adaptor = new kernel.library.BRepAdaptor_Curve(edge as never);
  const first = adaptor.FirstParameter(), last = adaptor.LastParameter();
  const type = String(adaptor.GetType());
  const n = type === "GeomAbs_Line" ? 1 : type === "GeomAbs_Circle" ? Math.max(4, Math.ceil((last - first) / angle)) : 32;
  const points = new Float64Array(3 * (n + 1));
  for (let i = 0; i <= n; i++) {
    const p = adaptor.EvalD0(first + ((last - first) * i) / n);
    points.set([p.X(), p.Y(), p.Z()], 3 * i);
    p.delete();
  }
  adaptor.delete();
  return points;
}
