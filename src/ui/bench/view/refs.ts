import { parseEdge } from "@/core/naming/names";
import { distance3, type Vec3 } from "@/core/geometry/vector";
import { formatFace } from "@/core/naming/names";
import type { Model } from "@/core/kernel/model";
import type { EdgeRef, FaceRef } from "@/core/naming/reference";

/** Of several of one name the one nearest to where it was: good enough to draw, never to build on. */
function nearest(
  list: readonly number[],
  at: readonly (readonly number[])[] | undefined,
  place: (i: number) => Vec3,
): number | undefined {
  const was = at?.[at.length >> 1] as Vec3 | undefined;
  return was && list.length > 1
    ? [...list].sort((a, b) => distance3(place(a), was) - distance3(place(b), was))[0]
    : list[0];
}

/** Where a face that is referred to stands in a model. */
export const faceNow = (m: Model, ref: FaceRef): number | undefined =>
  nearest(
    m.faces.flatMap((f, i) => (f.key === ref.face || f.names.some((n) => formatFace(n) === ref.face) ? [i] : [])),
    ref.at,
    (i) => m.faces[i]!.centre,
  );

/** Where an edge that is referred to stands in a model. */
export function edgeNow(m: Model, ref: EdgeRef): number | undefined {
  const wanted: readonly string[] = parseEdge(ref.edge),
    has = (f: number, name: string) => m.faces[f]!.names.some((n) => formatFace(n) === name);
  const list = m.edges.flatMap((e, i) =>
    (has(e.faces[0], wanted[0]!) && has(e.faces[1], wanted[1]!)) ||
    (has(e.faces[0], wanted[1]!) && has(e.faces[1], wanted[0]!))
      ? [i]
      : [],
  );
  return nearest(list, ref.at, (i) => m.edges[i]!.points[m.edges[i]!.points.length >> 1]!);
}
