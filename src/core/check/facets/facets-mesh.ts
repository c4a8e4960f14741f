import { move, type Rigid } from "@/core/geometry/rigid";
import type { Vec3 } from "@/core/geometry/vector";
import type { Mesh } from "@/core/kernel/mesh";
import { mapped, type FacetBody } from "@/core/measure/facet-body";

/** A body of facets for display, where it lies on the reference: round regions shaded round, creases as lines. */
export function facetsMesh(body: FacetBody, motion: Rigid): Mesh {
  const { positions: values, triangles: t, normals, regions } = mapped(body, (q) => move(motion, q), 1);
  const known = new Map<string, number>(),
    places: number[] = [],
    sums: number[] = [];
  const triangles = Uint32Array.from(t, (corner, i) => {
    const k = Math.floor(i / 3),
      key = `${corner},${regions[k]}`;
    let place = known.get(key);
    if (place === undefined) {
      known.set(key, (place = places.length / 3));
      places.push(values[3 * corner]!, values[3 * corner + 1]!, values[3 * corner + 2]!);
      sums.push(0, 0, 0);
    }
    for (let x = 0; x < 3; x++) sums[3 * place + x]! += normals[3 * k + x]!;
    return place;
  });
  const shaded = new Float32Array(sums.length);
  for (let i = 0; i < sums.length; i += 3) {
    const l = Math.hypot(sums[i]!, sums[i + 1]!, sums[i + 2]!) || 1;
    for (let x = 0; x < 3; x++) shaded[i + x] = sums[i + x]! / l;
  }
  const edges = creases(t, regions).map(([a, b]) =>
    Float32Array.from([...cornerAt(values, a), ...cornerAt(values, b)]),
  );
  return {
    positions: Float32Array.from(places),
    normals: shaded,
    triangles,
    faces: [{ start: 0, count: triangles.length }],
    edges,
    smooth: edges.map(() => false),
    owners: edges.map(() => 0),
  };
}

const cornerAt = (p: Float64Array, i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];

/** Sides where two regions meet, each once. */
function creases(t: Uint32Array, regions: Uint32Array): [number, number][] {
  const seen = new Map<string, number>(),
    found: [number, number][] = [];
  for (let i = 0; i < t.length; i++) {
    const [a, b] = [t[i]!, t[i % 3 === 2 ? i - 2 : i + 1]!],
      region = regions[Math.floor(i / 3)]!;
    const key = a < b ? `${a},${b}` : `${b},${a}`,
      other = seen.get(key);
    if (other === undefined) seen.set(key, region);
    else if (other !== region) found.push([a, b]);
  }
  return found;
}
