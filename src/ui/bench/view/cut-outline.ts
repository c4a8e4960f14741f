import { UNSEEN } from "../tolerance";
import type { Mesh } from "@/core/kernel/mesh";
import { dot3, perAxis, type Vec3 } from "@/core/geometry/vector";

/** Where a plane cuts the facets: pairs of points, x y z after each other. @param hidden faces left out */
export function cutOutline(
  mesh: Mesh,
  cut: { readonly at: Vec3; readonly normal: Vec3 },
  hidden?: ReadonlySet<number>,
): number[] {
  const { positions: p, triangles: t } = mesh,
    out: number[] = [],
    n = cut.normal,
    d = dot3(n, cut.at);
  const at = (i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
  mesh.faces.forEach((f, place) => {
    if (hidden?.has(place)) return;
    for (let k = f.start; k < f.start + f.count; k += 3) {
      const corners = [at(t[k]!), at(t[k + 1]!), at(t[k + 2]!)],
        over = corners.map((c) => dot3(n, c) - d),
        points: Vec3[] = [];
      for (let i = 0; i < 3; i++) {
        const j = (i + 1) % 3,
          a = over[i]!,
          b = over[j]!;
        // a corner in the plane counts as under it, so that every crossing is met once
        if (a > 0 === b > 0) continue;
        const s = a / (a - b);
        points.push(perAxis((x) => corners[i]![x] + s * (corners[j]![x] - corners[i]![x]) + UNSEEN * n[x]));
      }
      if (points.length === 2) out.push(...points[0]!, ...points[1]!);
    }
  });
  return out;
}
