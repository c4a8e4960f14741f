import { WELD } from "./tolerance";
import type { Mesh } from "@/core/kernel/mesh";

/**
 * One net over all faces: points that faces share are made one, and facets that shrink to nothing by that are left
 * out.
 */
export function welded(mesh: Pick<Mesh, "positions" | "triangles">): {
  positions: Float32Array;
  triangles: Uint32Array;
} {
  const { positions: values, triangles: t } = mesh,
    at = new Map<string, number>(),
    place: number[] = [],
    points: number[] = [];
  for (let i = 0; i < values.length; i += 3) {
    const key = [0, 1, 2].map((k) => Math.round(values[i + k]! / WELD)).join();
    let k = at.get(key);
    if (k === undefined) {
      at.set(key, (k = points.length / 3));
      points.push(values[i]!, values[i + 1]!, values[i + 2]!);
    }
    place.push(k);
  }
  const triangles: number[] = [];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [place[t[i]!]!, place[t[i + 1]!]!, place[t[i + 2]!]!];
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  }
  return { positions: Float32Array.from(points), triangles: Uint32Array.from(triangles) };
}
