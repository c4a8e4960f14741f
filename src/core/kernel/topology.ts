import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vector";
import type { Carrier, Spot } from "./carrier";
import { carrierOf, spotsOf } from "./recognise";
import { describeEdge, lengthOf, type Edge } from "./edges";
import { describeFace, type Face } from "./faces";
import type { Kernel } from "./opencascade";
import { formatFace } from "@/core/naming/names";
import { distinct, explore, faceShapes, ShapeIndex, type Solid } from "./solid";

/**
 * Which faces, edges and vertices of a body meet. Numbers are places in explorer order. What things measure is asked
 * for one by one, since describing everything costs more than most steps.
 */
export class Topology {
  readonly faces: readonly TopoDS_Shape[];
  /** Names of each face, written out. */
  readonly names: readonly (readonly string[])[];
  private readonly described = new Map<number, Omit<Face, "key" | "names">>();
  private readonly carriers = new Map<number, Carrier>();
  private readonly spotted = new Map<number, readonly Spot[]>();
  private readonly traced = new Map<number, Omit<Edge, "key">>();
  private net: { edges: TopoDS_Shape[]; edgeFaces: number[][]; faceEdges: number[][] } | undefined;
  private corners: { vertices: TopoDS_Shape[]; edgeEnds: number[][] } | undefined;

  constructor(
    readonly kernel: Kernel,
    readonly solid: Solid,
  ) {
    this.faces = faceShapes(kernel, solid.shape).shapes;
    this.names = solid.names.map((list) => list.map(formatFace));
  }

  /** Edges; a name alone is found without them. */
  private get meets() {
    if (this.net) return this.net;
    // face after face edges come in the order of the whole
    const index = new ShapeIndex(this.kernel),
      edgeFaces: number[][] = [];
    const faceEdges = this.faces.map((face, i) => {
      const own = new Set<number>();
      for (const s of explore(this.kernel, face, "EDGE")) {
        const k = index.place(s);
        own.add(k);
        if (k === edgeFaces.length) edgeFaces.push([]);
        else s.delete();
      }
      for (const k of own) edgeFaces[k]!.push(i);
      return [...own];
    });
    return (this.net = { edges: index.shapes, edgeFaces, faceEdges });
  }
  /** Vertices; asked for only where names and kinds of edges do not tell them apart. */
  private get ends() {
    if (this.corners) return this.corners;
    const { index, shapes: vertices } = distinct(this.kernel, this.solid.shape, "VERTEX");
    return (this.corners = {
      vertices,
      edgeEnds: this.edges.map((e) => {
        const own = explore(this.kernel, e, "VERTEX"),
          list = [...new Set(own.map((v) => index.find(v)))];
        for (const v of own) v.delete();
        return list;
      }),
    });
  }
  get edges(): readonly TopoDS_Shape[] {
    return this.meets.edges;
  }
  get vertices(): readonly TopoDS_Shape[] {
    return this.ends.vertices;
  }
  /** Faces that meet at an edge, each once; a seam has one. */
  get edgeFaces(): readonly (readonly number[])[] {
    return this.meets.edgeFaces;
  }
  get faceEdges(): readonly (readonly number[])[] {
    return this.meets.faceEdges;
  }
  get edgeEnds(): readonly (readonly number[])[] {
    return this.ends.edgeEnds;
  }

  release(): void {
    this.kernel.release(...(this.net?.edges ?? []), ...(this.corners?.vertices ?? []));
    this.net = this.corners = undefined;
  }

  /** Runs `use` over a body's topology and gives its memory back. */
  static over<T>(kernel: Kernel, solid: Solid, use: (t: Topology) => T): T {
    const t = new Topology(kernel, solid);
    try {
      return use(t);
    } finally {
      t.release();
    }
  }

  face(i: number): Omit<Face, "key" | "names"> {
    let f = this.described.get(i);
    if (!f) this.described.set(i, (f = describeFace(this.kernel, this.faces[i]!)));
    return f;
  }
  /** The surface of a face; cheaper than all of it. */
  carrier(i: number): Carrier {
    let c = this.described.get(i)?.carrier ?? this.carriers.get(i);
    if (!c) {
      const face = this.kernel.library.TopoDS.Face(this.faces[i]!);
      this.carriers.set(i, (c = carrierOf(this.kernel, face)));
      face.delete();
    }
    return c;
  }
  /** Places on the surface of a face. */
  spots(i: number): readonly Spot[] {
    let spots = this.spotted.get(i);
    if (!spots) {
      const face = this.kernel.library.TopoDS.Face(this.faces[i]!);
      this.spotted.set(i, (spots = spotsOf(this.kernel, face)));
      face.delete();
    }
    return spots;
  }
  edge(i: number): Omit<Edge, "key"> {
    let e = this.traced.get(i);
    if (!e) this.traced.set(i, (e = describeEdge(this.kernel, this.edges[i]!)));
    return e;
  }
  /** Cheaper than all of the edge. */
  edgeLength(i: number): number {
    return this.traced.get(i)?.length ?? lengthOf(this.kernel, this.edges[i]!);
  }
  point(i: number): Vec3 {
    const { TopoDS, BRep_Tool } = this.kernel.library,
      v = TopoDS.Vertex(this.vertices[i]!),
      p = BRep_Tool.Pnt(v);
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
