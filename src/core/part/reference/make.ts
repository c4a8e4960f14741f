import type { Vec3 } from "@/core/geometry/vector";
import { namesOf, type Model } from "@/core/kernel/model";
import { formatEdge, formatFace } from "@/core/naming/names";
import type { EdgeRef, FaceRef, VertexRef } from "@/core/naming/reference";

/** Places are kept to a micrometre: they tell pieces apart and draw what was meant, nothing is built on them. */
const kept = (p: Vec3): [number, number, number] => [
  Math.round(p[0] * 1000) / 1000,
  Math.round(p[1] * 1000) / 1000,
  Math.round(p[2] * 1000) / 1000,
];
/** Neighbours kept at most. */
const MANY = 24;

const nameOf = (m: Model, face: number): string => formatFace(m.faces[face]!.names[0]!);

/** How to find a face of a model again; its oldest name is kept. Undefined for a face without a name. */
export function faceRef(m: Model, face: number): FaceRef | undefined {
  const f = m.faces[face];
  return (
    f?.names[0] && {
      face: nameOf(m, face),
      beside: namesOf(m, f.beside).slice(0, MANY),
      at: [kept(f.centre)],
      kind: f.carrier.kind,
    }
  );
}

export function edgeRef(m: Model, edge: number): EdgeRef | undefined {
  const e = m.edges[edge];
  if (!e || e.faces.some((f) => !m.faces[f]!.names[0])) return undefined;
  const points = e.points,
    step = Math.max(1, Math.ceil((points.length - 1) / 8));
  const at = points.filter((_, i) => i % step === 0 || i === points.length - 1).map(kept);
  return {
    edge: formatEdge(e.faces.map((f) => nameOf(m, f))),
    beside: namesOf(m, e.beside).slice(0, MANY),
    at,
    kind: e.shape.kind,
  };
}

export function vertexRef(m: Model, vertex: number): VertexRef | undefined {
  const v = m.vertices[vertex];
  return v && v.faces.every((f) => m.faces[f]!.names[0])
    ? { vertex: v.faces.map((f) => nameOf(m, f)).sort(), at: [kept(v.at)] }
    : undefined;
}
