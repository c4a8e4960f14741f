import { add3, cross3, dot3, length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { cornersOfNet, NearestOn, SAME_FACING } from "@/core/measure/net";

/** Facets with the normals of the surfaces they stand for, as pictures have them. mm. */
interface Shaded {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
}

/** A part's surface in small facets, each corner with its distance from the reference; plain arrays that travel. */
export interface DeviationMap extends Shaded {
  /** mm: above 0 outside of the reference (too much), below 0 inside (too little). */
  readonly distances: Float32Array;
  /** Largest distance, and the root mean square over the area. */
  readonly most: number;
  readonly typical: number;
}

/** Facets are divided until their sides are this share of the size, or there are very many. */
const FINEST = 1 / 50;
const MOST = 60_000;

/**
 * How far a part's surface lies from the reference's, place by place. Facets cut corners of round surfaces by up to a
 * thirtieth of the radius; both are bulged by their normals first, which leaves a thousandth.
 */
export function deviationMap(part: Shaded, reference: Shaded): DeviationMap {
  const fine = divided(part),
    nearest = new NearestOn({ positions: reference.positions, triangles: reference.triangles });
  const distances = new Float32Array(fine.positions.length / 3);
  for (let i = 0; i < distances.length; i++) {
    const p = at3(fine.positions, i),
      found = nearest.find(p);
    if (!found) continue;
    distances[i] = offBulge(reference, found, p);
    const normal = at3(fine.normals, i);
    if (dot3(nearest.normal(found.triangle), normal) > SAME_FACING) continue;
    // beside an edge the nearest facet may be the one around the corner
    const facing = nearest.findFacing(p, normal, BEYOND * Math.max(found.distance, Math.abs(distances[i]!)));
    if (!facing) continue;
    const own = offBulge(reference, facing, p);
    if (Math.abs(own) < Math.abs(distances[i]!)) distances[i] = own;
  }
  return { ...fine, distances, ...amounts(fine, distances) };
}

/** So many times as far a facet that looks the same way is still the one that is meant. */
const BEYOND = 3;

/** How far a place lies from the surface that a facet stands for; below 0 behind it. */
function offBulge(reference: Shaded, found: { triangle: number; at: Vec3 }, p: Vec3): number {
  const [bulge, normal] = bulged(reference, found.triangle, found.at);
  const off = sub3(p, bulge);
  return dot3(off, normal) < 0 ? -length3(off) : length3(off);
}

function amounts({ positions, triangles }: Shaded, distances: Float32Array): { most: number; typical: number } {
  let squares = 0,
    all = 0;
  for (let k = 0; k < triangles.length / 3; k++) {
    const [a, b, c] = cornersOfNet({ positions, triangles }, k);
    const area = length3(cross3(sub3(b, a), sub3(c, a)));
    const mean = [0, 1, 2].reduce((s, i) => s + distances[triangles[3 * k + i]!]! ** 2 / 3, 0);
    squares += area * mean;
    all += area;
  }
  const most = distances.reduce((m, d) => Math.max(m, Math.abs(d)), 0);
  return { most, typical: Math.sqrt(squares / (all || 1)) };
}

const at3 = (list: ArrayLike<number>, i: number): Vec3 => [list[3 * i]!, list[3 * i + 1]!, list[3 * i + 2]!];

/**
 * A place on a facet moved half way to the tangent planes of its corners (Phong tessellation, Boubekeur & Alexa 2008),
 * and the normal there.
 */
function bulged(net: Shaded, triangle: number, at: Vec3): [Vec3, Vec3] {
  const corners = cornersOfNet(net, triangle);
  const weights = sharesOf(corners, at);
  let place: Vec3 = [0, 0, 0],
    normal: Vec3 = [0, 0, 0];
  corners.forEach((v, i) => {
    const n = at3(net.normals, net.triangles[3 * triangle + i]!);
    const onPlane = sub3(at, scale3(n, dot3(sub3(at, v), n)));
    place = add3(place, scale3(onPlane, weights[i]!));
    normal = add3(normal, scale3(n, weights[i]!));
  });
  const l = length3(normal) || 1;
  return [scale3(add3(at, place), 0.5), scale3(normal, 1 / l)];
}

/** Barycentric coordinates of a place on a triangle. */
function sharesOf([a, b, c]: readonly [Vec3, Vec3, Vec3], p: Vec3): Vec3 {
  const n = cross3(sub3(b, a), sub3(c, a)),
    all = dot3(n, n);
  if (!all) return [1, 0, 0];
  const v = dot3(cross3(sub3(p, a), sub3(c, a)), n) / all,
    w = dot3(cross3(sub3(b, a), sub3(p, a)), n) / all;
  return [1 - v - w, v, w];
}

/** The same surface in facets small enough to show where it departs; new corners lie on the bulge. */
function divided(part: Shaded): Shaded {
  const positions = [...part.positions],
    normals = [...part.normals];
  let triangles: number[] = [...part.triangles];
  let [low, high] = [Infinity, -Infinity];
  for (const v of positions) [low, high] = [Math.min(low, v), Math.max(high, v)];
  const longest = (high - low) * FINEST;
  for (let isDone = false; !isDone && triangles.length / 3 < MOST;) {
    isDone = true;
    const middles = new Map<number, number>(),
      next: number[] = [];
    const count = positions.length / 3;
    const middleOf = (i: number, k: number): number => {
      const key = Math.min(i, k) * count + Math.max(i, k);
      let m = middles.get(key);
      if (m !== undefined) return m;
      const [p, q, np, nq] = [at3(positions, i), at3(positions, k), at3(normals, i), at3(normals, k)];
      const half = scale3(add3(p, q), 0.5),
        sum = add3(np, nq),
        l = length3(sum) || 1;
      const lift = (v: Vec3, n: Vec3) => scale3(n, dot3(sub3(v, half), n) / 4);
      m = positions.length / 3;
      positions.push(...add3(half, add3(lift(p, np), lift(q, nq))));
      normals.push(...scale3(sum, 1 / l));
      middles.set(key, m);
      return m;
    };
    for (let t = 0; t < triangles.length; t += 3) {
      const corners = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!] as const;
      const long = corners.map((v, s) => length3(sub3(at3(positions, corners[(s + 1) % 3]!), at3(positions, v))));
      const top = long.indexOf(Math.max(...long));
      if (long[top]! <= longest) {
        next.push(...corners);
        continue;
      }
      isDone = false;
      // across the longest side, so that no sliver comes of it
      const [a, b, c] = [corners[top]!, corners[(top + 1) % 3]!, corners[(top + 2) % 3]!];
      const m = middleOf(a, b);
      next.push(a, m, c, m, b, c);
    }
    triangles = next;
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    triangles: Uint32Array.from(triangles),
  };
}
