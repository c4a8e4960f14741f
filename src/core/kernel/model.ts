import type { Vec3 } from "@/core/geometry/vector";
import { numbered, type Edge } from "./edges";
import { keyedFaces, type Face } from "./faces";
import type { Kernel } from "./opencascade";
import { formatEdge, formatFace } from "@/core/naming/names";
import { type Solid } from "./solid";
import { Topology } from "./topology";

/** A face with the faces around it, by place. */
interface ModelFace extends Face {
  readonly beside: readonly number[];
}
/** An edge with its two faces and the faces at its ends, by place. Length in mm. */
interface ModelEdge extends Edge {
  readonly faces: readonly [number, number];
  readonly beside: readonly number[];
  readonly ends: readonly number[];
  /** Its place among all edges of the body. */
  readonly index: number;
}
interface ModelVertex {
  readonly at: Vec3;
  readonly faces: readonly number[];
}

/**
 * A body in plain data: what can be picked, measured and referred to. Faces stand in explorer order; seams are no
 * edges.
 */
export interface Model {
  readonly faces: readonly ModelFace[];
  readonly edges: readonly ModelEdge[];
  readonly vertices: readonly ModelVertex[];
}

export const modelOf = (kernel: Kernel, solid: Solid): Model =>
  kernel.guard("describing the part", () => Topology.over(kernel, solid, modelOver));

export function modelOver(t: Topology): Model {
  const faces = keyedFaces(t.faces.map((_, i) => ({ names: t.solid.names[i] ?? [], ...t.face(i) })));
  const vertexFaces = t.vertices.map((_, v) => t.vertexFaces(v));
  const found = t.edges.flatMap((_, index) => {
    const pair = t.edgeFaces[index]!;
    if (pair.length !== 2) return [];
    const ends = t.edgeEnds[index]!;
    return [
      {
        base: formatEdge(pair.map((f) => faces[f]!.key)),
        ...t.edge(index),
        faces: pair as unknown as readonly [number, number],
        ends,
        beside: [...new Set(ends.flatMap((v) => vertexFaces[v]!))].filter((f) => !pair.includes(f)),
        index,
      },
    ];
  });
  return {
    faces: faces.map((f, i) => ({ ...f, beside: t.neighbours(i) })),
    edges: numbered(found),
    vertices: t.vertices.map((_, v) => ({ at: t.point(v), faces: vertexFaces[v]! })),
  };
}

/** All names of some faces of a model. */
export const namesOf = (m: Model, faces: readonly number[]): string[] => [
  ...new Set(faces.flatMap((f) => m.faces[f]!.names.map(formatFace))),
];
