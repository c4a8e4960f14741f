import { dot3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Mesh } from "@/core/kernel/mesh";
import type { Camera } from "./camera";

/** The face of a mesh nearest to the viewer at a pixel, by its place in the mesh; facets are good enough to point with. */
export function faceAt(camera: Camera, mesh: Mesh, at: Vec2): number | undefined {
  const { positions: p, triangles: t } = mesh;
  const n = p.length / 3, px = new Float64Array(2 * n), depth = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const v: Vec3 = [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
    [px[2 * i], px[2 * i + 1]] = camera.toPixels(v);
    depth[i] = dot3(v, camera.toViewer);
  }
  let best: number | undefined, near = -Infinity;
  mesh.faces.forEach(({ start, count }, face) => {
    for (let k = start; k < start + count; k += 3) {
      const [a, b, c] = [t[k]!, t[k + 1]!, t[k + 2]!];
      const ax = px[2 * a]!, ay = px[2 * a + 1]!, ux = px[2 * b]! - ax, uy = px[2 * b + 1]! - ay, vx = px[2 * c]! - ax, vy = px[2 * c + 1]! - ay;
      const area = ux * vy - uy * vx;
      if (Math.abs(area) < 1e-9) continue;
      const wx = at[0] - ax, wy = at[1] - ay, u = (wx * vy - wy * vx) / area, v = (ux * wy - uy * wx) / area;
      if (u < 0 || v < 0 || u + v > 1) continue;
      const d = depth[a]! + u * (depth[b]! - depth[a]!) + v * (depth[c]! - depth[a]!);
      if (d > near) [best, near] = [face, d];
    }
  });
  return best;
}

/** Which of some polylines in space passes nearest to a pixel, within reach; the one in front where several do. */
export function lineAt(camera: Camera, lines: readonly (readonly Vec3[])[], at: Vec2, reach: number): number | undefined {
  let best: number | undefined, score = Infinity;
  lines.forEach((points, i) => {
    for (let k = 1; k < points.length; k++) {
      const a = camera.toPixels(points[k - 1]!), b = camera.toPixels(points[k]!), ux = b[0] - a[0], uy = b[1] - a[1];
      const s = Math.max(0, Math.min(1, ((at[0] - a[0]) * ux + (at[1] - a[1]) * uy) / (ux * ux + uy * uy || 1)));
      const d = Math.hypot(a[0] + ux * s - at[0], a[1] + uy * s - at[1]);
      if (d > reach) continue;
      const depth = dot3(points[k]!, camera.toViewer), value = Math.round(d) - 1e-6 * depth;
      if (value < score) [best, score] = [i, value];
    }
  });
  return best;
}
