import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vector";
import { describeEdge, type Edge } from "./edges";
import { describeFace, type Face } from "./faces";
import type { Kernel } from "./opencascade";
import { distinct, explore, faceKey, type Solid } from "./solid";

/**
 * Which faces, edges and vertices of a body meet. Numbers are places in explorer order. What things measure is asked
 * for one by one, since describing everything costs more than most steps.
 */
export class Topology {
  readonly faces: readonly TopoDS_Shape[];
  readonly edges: readonly TopoDS_Shape[];
  readonly vertices: readonly TopoDS_Shape[];
  /** Names of each face, written out. */
  readonly names: readonly (readonly string[])[];
  /** Faces that meet at an edge, each once; a seam has one. */
  readonly edgeFaces: readonly (readonly number[])[];
  readonly faceEdges: readonly (readonly number[])[];
  readonly edgeEnds: readonly (readonly number[])[];
  private readonly described = new Map<number, Omit<Face, "key" | "names">>();
  private readonly traced = new Map<number, Omit<Edge, "key">>();

  constructor(readonly kernel: Kernel, readonly solid: Solid) {
    const { shape } = solid;
    const faces = distinct(kernel, shape, "FACE"), edges = distinct(kernel, shape, "EDGE"), vertices = distinct(kernel, shape, "VERTEX");
    this.faces = faces.shapes;
    this.edges = edges.shapes;
    this.vertices = vertices.shapes;
    this.names = solid.names.map((list) => list.map(faceKey));
    const meets = edges.shapes.map((): number[] => []);
    this.faceEdges = faces.shapes.map((f, i) => {
      const own = new Set<number>();
      for (const e of explore(kernel, f, "EDGE")) {
        own.add(edges.index.find(e));
        e.delete();
      }
      for (const e of own) meets[e]!.push(i);
      return [...own];
    });
    this.edgeFaces = meets;
    this.edgeEnds = edges.shapes.map((e) => {
      const own = new Set<number>();
      for (const v of explore(kernel, e, "VERTEX")) {
        own.add(vertices.index.find(v));
        v.delete();
      }
      return [...own];
    });
  }

  /** Runs `use` over a body's topology and gives its memory back. */
  static over<T>(kernel: Kernel, solid: Solid, use: (t: Topology) => T): T {
    const t = new Topology(kernel, solid);
    try {
      return use(t);
    } finally {
      kernel.release(...t.faces, ...t.edges, ...t.vertices);
    }
  }

  face(i: number): Omit<Face, "key" | "names"> {
    let f = this.described.get(i);
    if (!f) this.described.set(i, (f = describeFace(this.kernel, this.faces[i]!)));
    return f;
  }
  edge(i: number): Omit<Edge, "key"> {
    let e = this.traced.get(i);
    if (!e) this.traced.set(i, (e = describeEdge(this.kernel, this.edges[i]!)));
    return e;
  }
  point(i: number): Vec3 {
    const { TopoDS, BRep_Tool } = this.kernel.library, v = TopoDS.Vertex(this.vertices[i]!), p = BRep_Tool.Pnt(v);
    const at: Vec3 = [p.X(), p.Y(), p.Z()];
    this.kernel.release(p, v);
    return at;
  }
  /** Faces that share an edge with a face. */
  neighbours(face: number): number[] {
    return [...new Set(this.faceEdges[face]!.flatMap((e) => this.edgeFaces[e]!))].filter((f) => f !== face);
  }
  vertexFaces(vertex: number): number[] {
    return [...new Set(this.edgeEnds.flatMap((ends, e) => (ends.includes(vertex) ? this.edgeFaces[e]! : [])))];
  }
}
