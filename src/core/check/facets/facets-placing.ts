import { IDENTITY, move, rotationBetween, turn, type Rigid } from "@/core/geometry/rigid";
import {
  add3,
  anyAcross,
  cross3,
  dot3,
  length3,
  perAxis,
  scale3,
  sub3,
  unit3,
  type Vec3,
} from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Properties } from "@/core/kernel/properties";
import { waysOfFacets, type FacetBody } from "@/core/measure/facet-body";
import { cornersOfNet, type NearestOn } from "@/core/measure/net";
import type { Surface } from "@/core/measure/surfaces";
import { samplesOf, type Sample } from "./deviation";
import { settle } from "./facets-settling";
import { FACETS_ARM, FACETS_NEAR_ANGLE, FACETS_SNAP, FACETS_STRANGE, FACETS_THERE, NOT_PARALLEL } from "../tolerance";
import { triad } from "../placing/whole";

type Rows = Rigid["rows"];
/** A reference to lay facets on. */
export interface FacetTarget {
  readonly faces: readonly Surface[];
  readonly properties: Properties;
  readonly nearest: NearestOn;
  /** Box diagonal, mm. */
  readonly size: number;
}

/** Places looked at while rotations are compared, and when the best are settled. */
const FEW = 60;
const MANY = 400;
/** Ways of either side that are paired, rotations looked at closer, and placings settled. */
const WAYS = 6;
const CLOSER = 6;
const MOST_SETTLED = 3;
/** Turns tried about an axis where nothing else fixes them, degrees apart. */
const TURN = 5;

/**
 * The motion that lays a body of facets on the reference: rotations from pairs of flat ways (and turns about the one
 * axis there is), shifts from the sides and middles of the boxes, then settled by least sum of distances, which a
 * wrong feature does not pull along. @returns the motion, and the typical distance under it, mm
 */
export function placeFacets(target: FacetTarget, body: FacetBody): { readonly motion: Rigid; readonly off: number } {
  const few = largestOf(samplesOf(body, FEW), FEW);
  const score = (motion: Rigid, best: number): number => {
    let sum = 0;
    const cap = target.size / 20,
      all = few.reduce((s, f) => s + f.area, 0);
    for (const f of few) {
      sum += (target.nearest.find(move(motion, f.at), cap)?.distance ?? cap) * f.area;
      if (sum > best * all) return Infinity;
    }
    return sum / all;
  };
  const points = settlingPoints(body),
    small = pointsOfRegions(body);
  let best: Laid | undefined;
  for (const list of [rotations(target, body), turnsAboutAxis(target, body)]) {
    const shifted = list.map((rows) => bestShift(target, body, rows, false, score)),
      least = Math.min(...shifted.map(({ off }) => off)) + FACETS_THERE * target.size;
    // those that lie alike by what is large are told apart by what is small
    const ranked = shifted.map(({ motion, off }) => ({
      rows: motion.rows,
      off: Math.max(off, least),
      strange: off <= least ? strangers(small, body, target, motion) : 0,
    }));
    ranked.sort((a, b) => a.off - b.off || a.strange - b.strange);
    const closer = ranked.slice(0, CLOSER).map(({ rows }) => bestShift(target, body, rows, true, score));
    closer.sort((a, b) => a.off - b.off);
    const alike = closer.filter(({ off }) => off <= closer[0]!.off + FACETS_THERE * target.size).length;
    for (const { motion } of closer.slice(0, Math.max(MOST_SETTLED, alike))) {
      const lies = best !== undefined && best.off < FACETS_THERE * target.size;
      // of placings that lie alike by what is large only one that leaves less to tell is worth settling
      if (lies && strangers(small, body, target, motion) >= best!.strange) continue;
      const settled = settle(target.nearest, points, motion, target.size),
        laid = { ...settled, strange: strangers(small, body, target, settled.motion) };
      if (!best || isBetter(laid, best)) best = laid;
      // nothing lies better than what lies there with all that is small
      if (best.off < FACETS_THERE * target.size && !best.strange) return { ...best, motion: snapped(best.motion) };
    }
    // flat faces that look two ways leave no turn to be tried
    if (best && best.off < FACETS_THERE * target.size && isHeldByFlats(target.faces)) break;
  }
  if (!best) return { motion: IDENTITY, off: Infinity };
  return { motion: snapped(best.motion), off: best.off };
}

/** Whether flat faces of the reference look in directions that are not parallel: pairs of them give every rotation. */
function isHeldByFlats(faces: readonly Surface[]): boolean {
  const [first, ...others] = faces.flatMap(({ carrier }) => (carrier.kind === "plane" ? [carrier.normal] : []));
  return first !== undefined && others.some((way) => isAcross(first, way));
}

/** A settled placing, and at how many places of small things nothing of the reference is near. */
interface Laid {
  readonly motion: Rigid;
  readonly off: number;
  readonly strange: number;
}

/** Of placings the one that leaves least to tell; as much, the one that lies nearer. */
const isBetter = (a: Laid, b: Laid): boolean => (a.strange === b.strange ? a.off < b.off : a.strange < b.strange);

/** A place on each triangle, by the smooth region that it lies in. */
function placesByRegion(body: FacetBody): readonly (readonly Sample[])[] {
  const members = new Map<number, Sample[]>();
  for (const sample of samplesOf(body, 1)) {
    const region = body.regions[sample.triangle]!,
      known = members.get(region);
    if (known) known.push(sample);
    else members.set(region, [sample]);
  }
  return [...members.values()];
}

/** A few places on each smooth region, whatever its size: a small hole tells which way round a plate lies. */
const pointsOfRegions = (body: FacetBody): readonly Sample[] =>
  placesByRegion(body)
    .slice(0, MOST_REGIONS)
    .flatMap((list) => {
      const step = Math.max(1, Math.floor(list.length / OF_REGION));
      return list.filter((_, i) => i % step === 0).slice(0, OF_REGION);
    });
const OF_REGION = 4;
const MOST_REGIONS = 200;

function strangers(places: readonly Sample[], body: FacetBody, { nearest, size }: FacetTarget, motion: Rigid): number {
  const near = FACETS_STRANGE * size;
  return places.filter(({ at, triangle }) => {
    const reach = near + body.fineness[triangle]!;
    return (nearest.find(move(motion, at), 2 * reach)?.distance ?? Infinity) > reach;
  }).length;
}

/** Facets of rounds lie inside or outside of what they stand for, their corners on it: those are settled. */
function settlingPoints(body: FacetBody): readonly Sample[] {
  const list = largestOf(samplesOf(body, MANY), 2 * MANY).flatMap((s): Sample[] => {
    if (!body.fineness[s.triangle]) return [s];
    return cornersOfNet(body, s.triangle).map((at) => ({ ...s, at, area: s.area / 3 }));
  });
  return largestOf(list, 3 * MANY);
}

/** Of places on very many facets those that stand for most. */
const largestOf = (list: readonly Sample[], most: number): readonly Sample[] =>
  list.length <= most ? list : [...list].sort((a, b) => b.area - a.area).slice(0, most);

/** A rotation a hair beside one along the axes is meant to be it. */
function snapped({ rows, shift }: Rigid): Rigid {
  const isNear = rows.every((r) => r.every((v) => Math.abs(v - Math.round(v)) < FACETS_SNAP));
  return isNear
    ? { rows: rows.map((r) => r.map((v) => Math.round(v) + 0)) as unknown as Rows, shift }
    : { rows, shift };
}

type Score = (motion: Rigid, best: number) => number;
function bestShift(target: FacetTarget, body: FacetBody, rows: Rows, isWide: boolean, score: Score) {
  let best: { motion: Rigid; off: number } = { motion: { rows, shift: [0, 0, 0] }, off: Infinity };
  for (const shift of shiftsOf(target, body, rows, isWide)) {
    const motion = { rows, shift },
      off = score(motion, best.off);
    if (off < best.off) best = { motion, off };
  }
  return best;
}

/** Shifts that bring sides or middles of the two boxes together along each axis, and the centres of mass. */
function shiftsOf({ properties }: FacetTarget, body: FacetBody, rows: Rows, isWide: boolean): Vec3[] {
  const low: number[] = [Infinity, Infinity, Infinity],
    high: number[] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < body.positions.length; i += 3) {
    const p = turn({ rows, shift: [0, 0, 0] }, [body.positions[i]!, body.positions[i + 1]!, body.positions[i + 2]!]);
    for (let k = 0; k < 3; k++) [low[k], high[k]] = [Math.min(low[k]!, p[k]!), Math.max(high[k]!, p[k]!)];
  }
  const { min, max } = properties.box;
  const along = [0, 1, 2].map((k) => [
    min[k]! - low[k]!,
    max[k]! - high[k]!,
    (min[k]! + max[k]! - low[k]! - high[k]!) / 2,
  ]);
  const centred = sub3(properties.centre, turn({ rows, shift: [0, 0, 0] }, body.properties.centre));
  if (!isWide) return [centred, ...[0, 1, 2].map((c) => perAxis((k) => along[k]![c]!))];
  const all = along[0]!.flatMap((x) => along[1]!.flatMap((y) => along[2]!.map((z): Vec3 => [x, y, z])));
  return [centred, ...all];
}

/** Directions of the reference: normals of planes, both senses of axes; the largest area first. */
function waysOfReference(faces: readonly Surface[]): Vec3[] {
  const found: { way: Vec3; area: number }[] = [];
  const give = (way: Vec3, area: number) => {
    const known = found.find((f) => length3(sub3(f.way, way)) < FACETS_NEAR_ANGLE);
    if (known) known.area += area;
    else found.push({ way, area });
  };
  for (const { carrier, area } of faces) if (carrier.kind === "plane") give(carrier.normal, area);
  const axes = faces.filter((f) => axisOf(f.carrier));
  // an axis is a way only where no flat face shows it: the facets of a round have none
  if (found.length < 2) for (const { carrier, area } of axes) give(axisOf(carrier)!.along, area / 2);
  return found.sort((a, b) => b.area - a.area).map((f) => f.way);
}

const isAcross = (a: Vec3, b: Vec3) => length3(cross3(a, b)) > 100 * NOT_PARALLEL;

/** Rotations found so far, those that are nearly one only once. */
function distinctRotations() {
  const found: Rows[] = [];
  const give = (rows: Rows) => {
    if (!found.some((f) => f.every((row, i) => length3(sub3(row, rows[i]!)) < FACETS_NEAR_ANGLE))) found.push(rows);
  };
  return { found, give };
}
const firstWays = (body: FacetBody): Vec3[] =>
  waysOfFacets(body)
    .slice(0, WAYS)
    .map((w) => w.normal);

/** Rotations that lay two ways of the body on two of the reference at the same angle, and principal axes. */
function rotations(target: FacetTarget, body: FacetBody): Rows[] {
  const { found, give } = distinctRotations();
  const theirs = waysOfReference(target.faces).slice(0, 2 * WAYS),
    own = firstWays(body),
    [first] = own;
  for (const second of own)
    if (first && isAcross(first, second))
      for (const p of theirs)
        for (const q of theirs)
          if (isAcross(p, q) && Math.abs(dot3(first, second) - dot3(p, q)) < FACETS_NEAR_ANGLE)
            give(rotationBetween(triad(first, second), triad(p, q)));
  // one more guess; what is wrong is settled or scores low
  for (const rows of principal(target.properties, body.properties)) give(rows);
  return found;
}

/** Of a part that turns about its main way: what stands off the axis may be hard to tell from the facets round it. */
function turnsAboutAxis(target: FacetTarget, body: FacetBody): Rows[] {
  const { found, give } = distinctRotations();
  const [main] = waysOfReference(target.faces),
    [first] = firstWays(body);
  const isTurned = target.faces.some((f) => {
    const axis = axisOf(f.carrier)?.along;
    return main && axis && !isAcross(main, axis);
  });
  if (!main || !first || !isTurned) return [];
  const across = anyAcross(main),
    other = cross3(main, across);
  for (const sense of [1, -1])
    for (let d = 0; d < 360; d += TURN) {
      const a = (d * Math.PI) / 180,
        to = add3(scale3(across, Math.cos(a)), scale3(other, Math.sin(a)));
      give(rotationBetween(triad(scale3(first, sense), anyAcross(first)), triad(main, to)));
    }
  const theirs = armsOf(target.faces, target.properties.centre, main),
    own = armsOf(regionsOf(body), body.properties.centre, first);
  for (const sense of [1, -1])
    for (const a of theirs)
      for (const b of own)
        if (
          Math.abs(a.far - b.far) < target.size * FACETS_ARM &&
          Math.abs(a.level - sense * b.level) < target.size * FACETS_ARM
        )
          give(rotationBetween(triad(scale3(first, sense), b.way), triad(main, a.way)));
  return found.slice(0, MOST_TURNS);
}
const MOST_ARMS = 40;
const MOST_TURNS = 200;

/** What stands off the line through the centre of mass: how far, which way, how high. */
function armsOf(things: readonly { readonly centre: Vec3 }[], middle: Vec3, along: Vec3) {
  return things
    .flatMap(({ centre }) => {
      const arm = sub3(centre, middle),
        level = dot3(arm, along),
        out = sub3(arm, scale3(along, level)),
        far = length3(out);
      return far > NOT_PARALLEL ? [{ far, level, way: unit3(out) }] : [];
    })
    .sort((a, b) => b.far - a.far)
    .slice(0, MOST_ARMS);
}

/** The middles of a body's smooth regions, weighted by area. */
const regionsOf = (body: FacetBody): { readonly centre: Vec3 }[] =>
  placesByRegion(body).map((places) => {
    const area = places.reduce((sum, place) => sum + place.area, 0),
      moment = places.reduce<Vec3>((sum, place) => add3(sum, scale3(place.at, place.area)), [0, 0, 0]);
    return { centre: scale3(moment, 1 / area) };
  });

/** The four turns that lay principal axes on each other. */
function principal(reference: Properties, own: Properties): Rows[] {
  const [p, q] = [reference.axes, own.axes];
  return [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ].map(([s, t]) => {
    const from = triad(unit3(q[0]), unit3(q[1])),
      to = triad(scale3(unit3(p[0]), s!), scale3(unit3(p[1]), t!));
    return rotationBetween(from, to);
  });
}
