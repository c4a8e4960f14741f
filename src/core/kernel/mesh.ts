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
}

/**
 * Facets a body. @param deflection largest distance between facet and surface, mm
 * @param angle largest turn between neighbouring facets, radians
 */
export function meshOf(kernel: Kernel, solid: Solid, deflection: number, angle = 0.2): Mesh {
  return kernel.guard("drawing", () => {
    const oc = kernel.library;
    const mesher = new oc.BRepMesh_IncrementalMesh(solid.shape, deflection, false, angle, false);
    const positions: number[] = [], normals: number[] = [], triangles: number[] = [];
    const faces: { start: number; count: number }[] = [];
    const own = distinct(kernel, solid.shape, "FACE");
    for (const shape of own.shapes) {
      const start = triangles.length;
      addFace(kernel, shape, positions, normals, triangles);
      faces.push({ start, count: triangles.length - start });
    }
    const { lines: edges, smooth } = edgeLines(kernel, solid.shape, own.shapes, angle);
    kernel.release(...own.shapes, mesher);
    return { positions: Float32Array.from(positions), normals: Float32Array.from(normals), triangles: Uint32Array.from(triangles), faces, edges, smooth };
  });
}

function addFace(kernel: Kernel, shape: TopoDS_Shape, positions: number[], normals: number[], triangles: number[]): void {
  const oc = kernel.library;
  const face = oc.TopoDS.Face(shape);
  const location = new oc.TopLoc_Location();
  const net = oc.BRep_Tool.Triangulation(face, location, 0);
  if (!net) {
    kernel.release(face);
    return;
  }
  const trsf = location.Transformation();
  const base = positions.length / 3;
  const flipped = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED;
  for (let i = 1; i <= net.NbNodes(); i++) {
    const p = net.Node(i);
    const q = p.Transformed(trsf);
    positions.push(q.X(), q.Y(), q.Z());
    normals.push(0, 0, 0);
    p.delete();
    q.delete();
  }
  for (let i = 1; i <= net.NbTriangles(); i++) {
    const t = net.Triangle(i);
    const a = base + t.Value(1) - 1, b = base + t.Value(flipped ? 3 : 2) - 1, c = base + t.Value(flipped ? 2 : 3) - 1;
    triangles.push(a, b, c);
    t.delete();
    const n = faceNormal(positions, a, b, c);
    for (const v of [a, b, c]) for (let k = 0; k < 3; k++) normals[3 * v + k]! += n[k]!;
  }
  for (let v = base; v < positions.length / 3; v++) {
    const l = Math.hypot(normals[3 * v]!, normals[3 * v + 1]!, normals[3 * v + 2]!) || 1;
    for (let k = 0; k < 3; k++) normals[3 * v + k]! /= l;
  }
  kernel.release(trsf, location, face);
}

function faceNormal(p: number[], a: number, b: number, c: number): [number, number, number] {
  const ux = p[3 * b]! - p[3 * a]!, uy = p[3 * b + 1]! - p[3 * a + 1]!, uz = p[3 * b + 2]! - p[3 * a + 2]!;
  const vx = p[3 * c]! - p[3 * a]!, vy = p[3 * c + 1]! - p[3 * a + 1]!, vz = p[3 * c + 2]! - p[3 * a + 2]!;
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}

/** Edges as polylines; a seam (an edge that closes one face on itself) is not an edge to look at. */
function edgeLines(kernel: Kernel, shape: TopoDS_Shape, faceShapes: readonly TopoDS_Shape[], angle: number): { lines: Float32Array[]; smooth: boolean[] } {
  const oc = kernel.library;
  const { index, shapes } = distinct(kernel, shape, "EDGE");
  const seams = new Set<number>();
  for (const f of faceShapes) {
    const face = oc.TopoDS.Face(f);
    const own = distinct(kernel, f, "EDGE");
    for (const e of own.shapes) {
      const edge = oc.TopoDS.Edge(e);
      if (oc.BRep_Tool.IsClosed(edge, face)) seams.add(index.find(e));
      edge.delete();
    }
    kernel.release(...own.shapes, face);
  }
  const lines: Float32Array[] = [], smooth: boolean[] = [];
  shapes.forEach((s, i) => {
    if (!seams.has(i)) {
      const edge = oc.TopoDS.Edge(s);
      lines.push(Float32Array.from(edgePoints(kernel, edge, angle)));
      smooth.push(String(oc.BRep_Tool.MaxContinuity(edge)) !== "GeomAbs_C0");
      edge.delete();
    }
  });
  kernel.release(...shapes);
  return { lines, smooth };
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
