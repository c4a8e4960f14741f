import { perAxis } from "@/core/geometry/vector";
import { welded } from "./weld";
import type { Mesh } from "@/core/kernel/mesh";

/** Facets as a binary STL file, millimetres. Its first 80 bytes are free text. */
export function stlOf(mesh: Pick<Mesh, "positions" | "triangles">, name: string): Uint8Array {
  const { positions: values, triangles: t } = welded(mesh),
    n = t.length / 3,
    bytes = new Uint8Array(84 + 50 * n),
    view = new DataView(bytes.buffer);
  // a file that begins with "solid" would be taken for text
  [...`STL of ${name}`].slice(0, 80).forEach((c, i) => (bytes[i] = c.charCodeAt(0) < 128 ? c.charCodeAt(0) : 63));
  view.setUint32(80, n, true);
  for (let k = 0; k < n; k++) {
    const [a, b, c] = [t[3 * k]!, t[3 * k + 1]!, t[3 * k + 2]!].map(
      (i) => [values[3 * i]!, values[3 * i + 1]!, values[3 * i + 2]!] as const,
    ) as unknown as [readonly number[], readonly number[], readonly number[]];
    const u = perAxis((i) => b[i]! - a[i]!),
      v = perAxis((i) => c[i]! - a[i]!);
    const normal = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]],
      l = Math.hypot(...normal) || 1;
    [...normal.map((x) => x / l), ...a, ...b, ...c].forEach((x, i) => view.setFloat32(84 + 50 * k + 4 * i, x, true));
  }
  return bytes;
}
