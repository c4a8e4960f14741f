import { scale3, type Vec3 } from "@/core/geometry/vector";
import { cornersOfNet, NearestOn, type Net } from "./net";

/** Two sides of a wall look away from each other, within some 20°: what meets at a sharp edge is no wall. */
const OPPOSITE = -0.94;
/** So many places at most are asked, spread over the part. */
const PLACES = 6_000;

interface ShadedNet extends Net {
  /** Of each corner, out of the material. */
  readonly normals: Float32Array;
}

/**
 * The thinnest wall of a body: the least distance through the material between two places that look away from each
 * other. Asked at the corners and middles of its facets, so it is as exact as they are.
 * @returns mm, or undefined where nothing stands opposite anything
 */
export function thinnestWall(net: ShadedNet): number | undefined {
  const on = new NearestOn(net);
  let least: number | undefined;
  for (const [at, normal] of placesOf(net)) {
    const found = on.through(at, normal, OPPOSITE, least ?? Infinity);
    if (found !== undefined) least = found;
  }
  return least;
}

function* placesOf(net: ShadedNet): Generator<readonly [Vec3, Vec3]> {
  const { positions, normals, triangles } = net;
  const corners = positions.length / 3,
    facets = triangles.length / 3;
  const stride = Math.max(1, Math.ceil((corners + facets) / PLACES));
  const at = (list: Float32Array, i: number): Vec3 => [list[3 * i]!, list[3 * i + 1]!, list[3 * i + 2]!];
  for (let i = 0; i < corners; i += stride) yield [at(positions, i), at(normals, i)];
  for (let k = 0; k < facets; k += stride) {
    const [a, b, c] = cornersOfNet(net, k);
    const middle = scale3([a[0] + b[0] + c[0], a[1] + b[1] + c[1], a[2] + b[2] + c[2]], 1 / 3);
    yield [middle, facing(net, k)];
  }
}

function facing({ normals, triangles }: ShadedNet, k: number): Vec3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < 3; i++) for (let x = 0; x < 3; x++) sum[x]! += normals[3 * triangles[3 * k + i]! + x]!;
  const l = Math.hypot(...sum) || 1;
  return [sum[0] / l, sum[1] / l, sum[2] / l];
}
