import { isMarked, parseEdge } from "@/core/naming/names";
import { distance3, scale3, add3, type Vec3, vec3 } from "@/core/geometry/vector";
import { modelOver } from "@/core/kernel/model";
import type { Topology } from "@/core/kernel/topology";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { EdgeRef, FaceRef, VertexRef } from "@/core/naming/reference";
import { edgeText, faceText, refText } from "./text";
import { begun } from "@/core/naming/words";

/** How much nearer the best of several like candidates must be than the next, or none is taken. */
const CLEARLY = 0.5;

type Ref = {
  readonly beside?: readonly string[] | undefined;
  readonly at?: readonly (readonly number[])[] | undefined;
  readonly kind?: string | undefined;
};
interface Candidate {
  readonly index: number;
  readonly beside: () => readonly string[];
  readonly place: () => Vec3;
  readonly kind: () => string;
}

const middleOf = (at: Ref["at"]): Vec3 | undefined =>
  at?.length
    ? scale3(
        (at as Vec3[]).reduce((s, p) => add3(s, p), vec3(0, 0, 0)),
        1 / at.length,
      )
    : undefined;

/**
 * Of several that carry the same names: those among most of the neighbours that tell them apart, then the one clearly
 * nearest. Neighbours that all of them have, or none, tell nothing. Nothing is guessed: undefined where it stays open.
 */
function choose(ref: Ref, candidates: readonly Candidate[]): Candidate | undefined {
  if (candidates.length < 2) return candidates[0];
  const around = candidates.map((c) => new Set(c.beside()));
  const telling = (ref.beside ?? []).filter((n) => new Set(around.map((names) => names.has(n))).size > 1);
  const met = around.map((names) => telling.filter((n) => names.has(n)).length);
  const best = candidates.filter((_, i) => met[i] === Math.max(...met));
  if (best.length < 2) return best[0];
  const meant = middleOf(ref.at);
  if (!meant) return undefined;
  const near = best.map((c) => ({ c, d: distance3(c.place(), meant) })).sort((a, b) => a.d - b.d);
  return near[0]!.d <= CLEARLY * near[1]!.d ? near[0]!.c : undefined;
}

function found(ref: Ref, candidates: readonly Candidate[], what: string): Outcome<number> {
  if (!candidates.length) return refuse("lost-reference", `${what} is no longer there. Pick it anew.`);
  const alike = ref.kind ? candidates.filter((c) => c.kind() === ref.kind) : candidates;
  if (!alike.length)
    return refuse(
      "lost-reference",
      `${what} was ${KINDS[ref.kind!] ?? ref.kind} and is now ` +
        `${KINDS[candidates[0]!.kind()] ?? candidates[0]!.kind()}. Pick it anew.`,
    );
  const chosen = choose(ref, alike);
  return chosen
    ? done(chosen.index)
    : refuse(
        "lost-reference",
        `${what} has come apart into ${alike.length} pieces, and which was meant is not clear. Pick it anew.`,
      );
}
const KINDS: Record<string, string> = {
  plane: "flat",
  cylinder: "round",
  cone: "conical",
  sphere: "a ball",
  torus: "a rounding",
  line: "straight",
  circle: "a circle",
  other: "curved",
};

/** The face meant, by its place in explorer order. */
export function findFace(t: Topology, ref: FaceRef): Outcome<number> {
  // a face picked by its key in a list of all may carry the mark that parted it from others of its name
  if (isMarked(ref.face)) {
    const index = modelOver(t).faces.findIndex((f) => f.key === ref.face);
    return index < 0 ? found(ref, [], begun(faceText(ref))) : done(index);
  }
  const list = t.names.flatMap((names, index) => (names.includes(ref.face) ? [index] : []));
  return found(
    ref,
    list.map((index) => ({
      index,
      beside: () => t.neighbours(index).flatMap((f) => t.names[f]!),
      place: () => t.face(index).centre,
      kind: () => t.carrier(index).kind,
    })),
    begun(faceText(ref)),
  );
}

const middle = (points: readonly Vec3[]): Vec3 =>
  scale3(
    points.reduce((s, p) => add3(s, p)),
    1 / points.length,
  );

/** The edge meant, by its place in explorer order. */
export function findEdge(t: Topology, ref: EdgeRef): Outcome<number> {
  const [a, b] = parseEdge(ref.edge) as readonly [string, string];
  const list = t.edgeFaces.flatMap((faces, index) => {
    const [p, q] = faces;
    if (p === undefined || q === undefined) return [];
    const [m, n] = [t.names[p]!, t.names[q]!];
    return (m.includes(a) && n.includes(b)) || (m.includes(b) && n.includes(a)) ? [index] : [];
  });
  return found(
    ref,
    list.map((index) => ({
      index,
      beside: () => edgeBeside(t, index),
      place: () => middle(t.edge(index).points),
      kind: () => t.edge(index).shape.kind,
    })),
    begun(edgeText(ref)),
  );
}

/** Names of the faces that meet an edge only at its ends. */
function edgeBeside(t: Topology, edge: number): string[] {
  const own = t.edgeFaces[edge]!;
  return [...new Set(t.edgeEnds[edge]!.flatMap((v) => t.vertexFaces(v)))]
    .filter((f) => !own.includes(f))
    .flatMap((f) => t.names[f]!);
}

/** The vertex meant. */
export function findVertex(t: Topology, ref: VertexRef): Outcome<number> {
  const list = t.vertices.flatMap((_, index) => {
    const names = t.vertexFaces(index).map((f) => t.names[f]!);
    return ref.vertex.every((n) => names.some((own) => own.includes(n))) ? [index] : [];
  });
  return found(
    { at: ref.at },
    list.map((index) => ({ index, beside: () => [], place: () => t.point(index), kind: () => "point" })),
    begun(refText(ref)),
  );
}
