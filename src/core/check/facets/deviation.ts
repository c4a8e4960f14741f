import { cross3, length3, sub3, type Vec3, eachAxis } from "@/core/geometry/vector";
import { cornersOfNet } from "@/core/measure/net";

/** A place on a net: which triangle, and how much of its area it stands for. */
export interface Sample {
  readonly at: Vec3;
  readonly triangle: number;
  /** mm². */
  readonly area: number;
}

/** Shares of the golden ratio's cousins (Roberts, 2018): their multiples fill a triangle evenly. */
const R1 = 0.7548776662466927;
const R2 = 0.5698402909980532;

type AnyNet = { readonly positions: ArrayLike<number>; readonly triangles: ArrayLike<number> };

/**
 * Places spread evenly over a net, at least one on each triangle; the same ones each time.
 * @param about how many in all
 */
export function samplesOf(net: AnyNet, about: number): Sample[] {
  const n = net.triangles.length / 3,
    areas = new Float64Array(n);
  let all = 0;
  for (let k = 0; k < n; k++) {
    const [a, b, c] = cornersOfNet(net, k);
    all += areas[k] = length3(cross3(sub3(b, a), sub3(c, a))) / 2;
  }
  const each = all / about;
  return [...areas].flatMap((area, k): Sample[] => {
    const count = Math.max(1, Math.round(area / each)),
      [a, b, c] = cornersOfNet(net, k);
    return Array.from({ length: count }, (_, i) => {
      let u = count === 1 ? 1 / 3 : ((i + 1) * R1) % 1,
        v = count === 1 ? 1 / 3 : ((i + 1) * R2) % 1;
      if (u + v > 1) [u, v] = [1 - u, 1 - v];
      const at = eachAxis((x) => a[x]! + u * (b[x]! - a[x]!) + v * (c[x]! - a[x]!));
      return { at, triangle: k, area: area / count };
    });
  });
}

/** What was measured of a face of the reference, or of the body where that face is nearest. */
interface FaceDeviation {
  /** Largest distance seen, mm. */
  readonly most: number;
  /** By how much the tolerance and the fineness are passed at most, mm; not above 0: they are not. */
  readonly beyond: number;
}

/** How far a body of facets lies from the reference. */
export interface Deviation {
  /** For each face of the reference. */
  readonly faces: readonly FaceDeviation[];
  /** The largest and the typical distance (root mean square over the area), mm. */
  readonly most: number;
  readonly typical: number;
  /** Area times what passes the tolerance: about the volume that differs, mm³. */
  readonly volume: number;
}
