import { move, turn, type Rigid } from "@/core/geometry/rigid";
import { footOn } from "@/core/geometry/line";
import { distance3, dot3, eachAxis, type Vec3 } from "@/core/geometry/vector";
import { mappedCarrier, type Carrier } from "@/core/kernel/carrier";
import type { Face } from "@/core/kernel/faces";
import { sameCarrier } from "@/core/measure/same";
import { SAME_PLACE } from "@/core/measure/tolerance";
import { Nearby } from "@/core/geometry/nearby";
import { SAME_FAR, SAME_SIZE, SIDE_BY_SIDE } from "../tolerance";

/** A face as seen after a motion. */
export const movedFace = (f: Face, m: Rigid): Face => ({
  ...f,
  centre: move(m, f.centre),
  carrier: mappedCarrier(
    f.carrier,
    (p) => move(m, p),
    (d) => turn(m, d),
  ),
});

const sameSize = (a: number, b: number) => Math.abs(a - b) <= SAME_SIZE * Math.max(Math.abs(a), Math.abs(b));

/** Whether two faces are one and the same piece of surface, by carrier and cheap invariants. */
export const sameFace = (a: Face, b: Face, size: number): boolean =>
  sameSize(a.area, b.area) &&
  sameSize(a.rim, b.rim) &&
  distance3(a.centre, b.centre) <= 10 * SAME_PLACE * size &&
  sameCarrier(a.carrier, b.carrier, size);

/**
 * Area that two faces on nearly one surface can have in common: the lesser may lie anywhere within the larger, only
 * what its centre is off beyond that counts against it.
 */
export function overlap(a: Face, b: Face): number {
  const [small, large] = a.area < b.area ? [a, b] : [b, a];
  const length = lengthOf(large),
    play = Math.max(0, length - lengthOf(small)) / 2;
  const off = Math.max(0, distance3(a.centre, b.centre) - play);
  return small.area * Math.max(0, 1 - off / length);
}

/** The longer side of the rectangle with a face's area and rim, mm. */
function lengthOf({ area, rim }: Face): number {
  const half = rim / 2;
  return Math.max(Math.sqrt(area), (half + Math.sqrt(Math.max(0, half ** 2 - 4 * area))) / 2);
}

/**
 * Area of two faces that coincides, from their invariants alone: all of it when they are one, an estimate on one
 * carrier.
 */
function sharedArea(a: Face, b: Face, size: number): number {
  if (sameFace(a, b, size)) return Math.max(a.area, b.area);
  if (!sameCarrier(a.carrier, b.carrier, size)) return 0;
  return 0.9 * overlap(a, b);
}

export interface Matching {
  /** Pairs [reference face, submission face] that are one and the same. */
  readonly pairs: readonly (readonly [number, number])[];
  readonly unmatchedReference: readonly number[];
  readonly unmatchedSubmission: readonly number[];
  /** Area that coincides, mm². */
  readonly area: number;
}

/** Matches faces one to one; `placed` are the submission's faces after the motion. */
export function matchFaces(reference: readonly Face[], placed: readonly Face[], size: number): Matching {
  const near = new Nearby(
    placed.map((f) => f.centre),
    10 * SAME_PLACE * size,
  );
  const taken = new Set<number>();
  const pairs: [number, number][] = [];
  const unmatchedReference: number[] = [];
  let area = 0;
  reference.forEach((face, i) => {
    const j = near.find(face.centre, (k) => !taken.has(k) && sameFace(face, placed[k]!, size));
    if (j < 0) {
      unmatchedReference.push(i);
      return;
    }
    taken.add(j);
    pairs.push([i, j]);
    area += face.area;
  });
  const rest = placed.map((_, k) => k).filter((k) => !taken.has(k));
  const onCarrier = carriersOf(placed, rest, size);
  for (const i of unmatchedReference)
    area += Math.max(0, ...onCarrier(reference[i]!).map((k) => sharedArea(reference[i]!, placed[k]!, size)));
  return { pairs, unmatchedReference, unmatchedSubmission: rest, area };
}

/** A way through space that no drawing takes: what differs along it differs. */
const ODD: Vec3 = [0.5377, 0.6113, 0.5807];

/** A number that the same carriers share, and others mostly do not; mm. */
function signOf(c: Carrier, size: number): number {
  if (c.kind === "plane") return c.offset + size * dot3(c.normal, ODD);
  if (c.kind === "sphere") return dot3(c.centre, ODD) + c.radius;
  if (c.kind === "torus") return dot3(c.centre, ODD) + c.major;
  if (c.kind === "cone") return dot3(c.tip, ODD);
  const foot = "at" in c ? dot3(footOn([0, 0, 0], { at: c.at, along: c.axis }), ODD) : 0;
  if (c.kind === "cylinder") return foot + c.radius;
  if (c.kind === "elliptic") return foot + c.halves[0];
  return 0;
}
/** How far the numbers of carriers that count as the same may be apart: tips of cones are the least sharp; sizes. */
const SIGN_REACH = 40 * SAME_PLACE;

/** Looks up which of the faces lie on a face's carrier, or nearly. */
function carriersOf(faces: readonly Face[], which: readonly number[], size: number): (f: Face) => number[] {
  const filed = which.map((k) => ({ k, sign: signOf(faces[k]!.carrier, size) })).sort((a, b) => a.sign - b.sign);
  return (f) => {
    const sign = signOf(f.carrier, size),
      reach = SIGN_REACH * size;
    let [low, high] = [0, filed.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (filed[middle]!.sign < sign - reach) low = middle + 1;
      else high = middle;
    }
    const found: number[] = [];
    for (let i = low; i < filed.length && filed[i]!.sign <= sign + reach; i++) found.push(filed[i]!.k);
    return found;
  };
}

/** A face's own carriers mirrored in the plane x = 0, or scaled about the origin. */
export function transformedFace(face: Face, mirror: boolean, scale: number): Face {
  const p = (v: Vec3): Vec3 => [(mirror ? -v[0] : v[0]) * scale, v[1] * scale, v[2] * scale];
  const d = (v: Vec3): Vec3 => [mirror ? -v[0] : v[0], v[1], v[2]];
  return {
    ...face,
    carrier: mappedCarrier(face.carrier, p, d, scale),
    centre: p(face.centre),
    area: face.area * scale * scale,
    rim: face.rim * scale,
    reach: face.reach && {
      low: face.reach.low * scale,
      high: face.reach.high * scale,
      far: face.reach.far * scale,
    },
  };
}

/** The middle of all area. */
export const areaCentre = (faces: readonly Face[]): Vec3 => {
  const total = faces.reduce((s, f) => s + f.area, 0);
  return faces.reduce<Vec3>(
    (s, f) => [
      s[0] + (f.centre[0] * f.area) / total,
      s[1] + (f.centre[1] * f.area) / total,
      s[2] + (f.centre[2] * f.area) / total,
    ],
    [0, 0, 0],
  );
};

/** Whether bodies stand side by side: of the boxes about the middles of their faces hardly anything is common. */
export function standBeside(reference: readonly Face[], placed: readonly Face[]): boolean {
  const [a, b] = [boxOfCentres(reference), boxOfCentres(placed)],
    // of a turned part all middles lie on one line: across it they say nothing
    thin = SAME_FAR * Math.max(...[0, 1, 2].map((axis) => a.max[axis]! - a.min[axis]!));
  const shares = [0, 1, 2].map((axis) => {
    const common = Math.min(a.max[axis]!, b.max[axis]!) - Math.max(a.min[axis]!, b.min[axis]!),
      least = Math.min(a.max[axis]! - a.min[axis]!, b.max[axis]! - b.min[axis]!);
    return least > thin ? common / least : 1;
  });
  return Math.min(...shares) < SIDE_BY_SIDE;
}

const boxOfCentres = (faces: readonly Face[]) => ({
  min: eachAxis((axis) => faces.reduce((low, f) => Math.min(low, f.centre[axis]), Infinity)),
  max: eachAxis((axis) => faces.reduce((high, f) => Math.max(high, f.centre[axis]), -Infinity)),
});
