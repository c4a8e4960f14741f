import { perAxis, type Vec3 } from "@/core/geometry/vector";
import type { Mesh } from "@/core/kernel/mesh";

/** The box around a mesh. */
export function boxOfMesh(m: Mesh): { readonly low: Vec3; readonly high: Vec3 } {
  const low = [Infinity, Infinity, Infinity],
    high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < m.positions.length; i++) {
    low[i % 3] = Math.min(low[i % 3]!, m.positions[i]!);
    high[i % 3] = Math.max(high[i % 3]!, m.positions[i]!);
  }
  return { low: perAxis((a) => low[a]!), high: perAxis((a) => high[a]!) };
}

export const cornersOf = (m: Mesh): Vec3[] => {
  const { low, high } = boxOfMesh(m);
  return [0, 1, 2, 3, 4, 5, 6, 7].map((k) => perAxis((a) => (k & (1 << a) ? high : low)[a]));
};
