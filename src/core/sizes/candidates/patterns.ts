import { footOn, type Line } from "@/core/geometry/line";
import { cross3, distance3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { goesRound } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import { EQUAL, TOUCHING } from "../tolerance";
import { directionsOf, isCylinder, type Candidate, type Cylinder } from "./candidate";

/** Like round faces with parallel axes, each axis once. */
function likeGroups(surfaces: readonly Cylinder[]): Cylinder[][] {
  const groups: Cylinder[][] = [];
  for (const cylinder of surfaces) {
    const { axis, radius, hollow } = cylinder.carrier;
    const group = groups.find(([g]) => {
      const c = g!.carrier;
      return c.hollow === hollow && Math.abs(c.radius - radius) <= EQUAL && isParallel(c.axis, axis);
    });
    if (!group) groups.push([cylinder]);
    else if (!group.some((g) => apart(g, cylinder) <= TOUCHING)) group.push(cylinder);
  }
  return groups;
}
const apart = (a: Cylinder, b: Cylinder): number => {
  const p = axisOf(a.carrier)!;
  return distance3(footOn(b.carrier.at, p), b.carrier.at);
};

/** Pitch circles and rows. */
export function patternCandidates(body: SizedBody): Candidate[] {
  const round = body.surfaces.filter(isCylinder);
  const whole = round.filter((s) => goesRound(s));
  const groups = likeGroups(whole);
  return [...groups.flatMap((g) => circles(g, whole)), ...groups.flatMap((g) => rowsIn(g, body))];
}

function circles(group: readonly Cylinder[], all: readonly Cylinder[]): Candidate[] {
  if (group.length < 2) return [];
  const middles = likeAxes(all.filter((s) => isParallel(s.carrier.axis, group[0]!.carrier.axis)));
  const list = middles.flatMap((cylinder): Candidate[] => {
    const axis = axisOf(cylinder.carrier)!;
    const far = (s: Cylinder) => distance3(footOn(s.carrier.at, axis), s.carrier.at);
    const rings: Cylinder[][] = [];
    for (const s of group) {
      if (far(s) <= TOUCHING) continue;
      const ring = rings.find(([r]) => Math.abs(far(r!) - far(s)) <= TOUCHING);
      if (ring) ring.push(s);
      else rings.push([s]);
    }
    // about one of their own kind a few are no ring: neighbours in a grid stand so
    const least = group.some((g) => apart(g, cylinder) <= TOUCHING) ? LEAST_ABOUT_OWN : 2;
    return rings.flatMap((ring) => (ring.length >= least ? ringOf(ring, axis, keyOf(cylinder)) : []));
  });
  const sum = group.reduce<Vec3>(
    (t, s) => [t[0] + s.carrier.at[0], t[1] + s.carrier.at[1], t[2] + s.carrier.at[2]],
    [0, 0, 0],
  );
  const axis: Line = { at: scale3(sum, 1 / group.length), along: group[0]!.carrier.axis };
  const far = group.map((s) => distance3(footOn(s.carrier.at, axis), s.carrier.at));
  const isRing = group.length > 2 && far.every((f) => Math.abs(f - far[0]!) <= TOUCHING);
  return isRing ? [...list, ...ringOf(group, axis, undefined)] : list;
}

const LEAST_ABOUT_OWN = 5;

/** One face for each axis, the largest. */
function likeAxes(list: readonly Cylinder[]): Cylinder[] {
  const found: Cylinder[] = [];
  for (const s of [...list].sort((a, b) => b.area - a.area))
    if (found.length < MOST_MIDDLES && !found.some((f) => apart(f, s) <= TOUCHING)) found.push(s);
  return found;
}
const MOST_MIDDLES = 8;

function ringOf(ring: readonly Cylinder[], axis: Line, about: string | undefined): Candidate[] {
  const away = (s: Cylinder) => sub3(s.carrier.at, footOn(s.carrier.at, axis));
  const zero = away(ring[0]!);
  const turn = (s: Cylinder) => {
    const v = away(s);
    const angle = Math.atan2(dot3(cross3(zero, v), axis.along), dot3(zero, v));
    return angle < -EQUAL ? angle + 2 * Math.PI : angle;
  };
  const sorted = [...ring].sort((a, b) => turn(a) - turn(b));
  const n = sorted.length,
    at = sorted.map(turn);
  const gaps = at.map((t, i) => (i + 1 < n ? at[i + 1]! : at[0]! + 2 * Math.PI) - t);
  const isEven = (list: readonly number[]) => list.every((g) => Math.abs(g - list[0]!) <= EQUAL);
  const base = { kind: "circle" as const, ...(about !== undefined && { about }) };
  const cost = about === undefined ? 1.4 : 1;
  if (isEven(gaps)) return [{ size: { ...base, of: sorted.map(keyOf) }, cost: cost - 0.05 * n }];
  // part of a turn: begins after the widest gap
  const widest = gaps.indexOf(Math.max(...gaps)),
    order = sorted.map((_, i) => sorted[(i + widest + 1) % n]!),
    inner = gaps.filter((_, i) => i !== widest);
  const plain: Candidate = { size: { ...base, of: order.map(keyOf) }, cost: cost + 0.3 };
  if (!isEven(inner)) return [plain];
  return [plain, { size: { ...base, of: order.map(keyOf), spaced: true }, cost }];
}

/** Rows of at least three at equal steps, along the main directions. */
function rowsIn(group: readonly Cylinder[], { surfaces }: SizedBody): Candidate[] {
  if (group.length < 3) return [];
  return directionsOf(surfaces)
    .slice(0, 3)
    .flatMap(({ along }): Candidate[] => {
      if (!isSquare(along, group[0]!.carrier.axis)) return [];
      const at = (s: Cylinder) => dot3(s.carrier.at, along);
      const across = cross3(along, group[0]!.carrier.axis);
      const rows: Cylinder[][] = [];
      for (const s of group) {
        const row = rows.find(([r]) => Math.abs(dot3(r!.carrier.at, across) - dot3(s.carrier.at, across)) <= TOUCHING);
        if (row) row.push(s);
        else rows.push([s]);
      }
      return rows.flatMap((row): Candidate[] => {
        const sorted = row.sort((a, b) => at(a) - at(b)),
          steps = sorted.slice(1).map((s, i) => at(s) - at(sorted[i]!));
        const isEven = steps.length > 1 && steps.every((g) => Math.abs(g - steps[0]!) <= EQUAL);
        return isEven ? [{ size: { kind: "pitch", of: sorted.map(keyOf) }, cost: 1.8 }] : [];
      });
    });
}
