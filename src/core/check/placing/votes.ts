import { cross3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import type { Face } from "@/core/kernel/faces";
import { SAME_DIRECTION, SAME_PLACE } from "@/core/measure/tolerance";
import { NOT_PARALLEL } from "../tolerance";

/** One wish for the shift: its component along a direction, and how much area wishes so. */
interface Wish {
  readonly along: Vec3;
  readonly by: number;
  weight: number;
}

/** Where faces stand along a direction: planes square to it, axes across it, middles of balls and rings. */
interface Level {
  readonly at: number;
  /** What may stand on what: a plane looking the same way, a bore on a bore, of a radius. */
  readonly like: string;
  readonly radius: number;
  area: number;
}

/** Most levels looked at along a direction: the largest first. */
const MOST_LEVELS = 120;
const MOST_WISHES = 8;
/** What has another radius, or another area, may still be meant: it speaks so much softer. */
const UNLIKE = 0.3;

function levelsOf(faces: readonly Face[], d: Vec3, near: number): Level[] {
  const all: Level[] = [];
  for (const { carrier: c, area, centre } of faces) {
    if (c.kind === "plane") {
      const way = dot3(c.normal, d);
      if (length3(sub3(c.normal, scale3(d, Math.sign(way)))) <= SAME_DIRECTION)
        all.push({ at: c.offset * Math.sign(way), like: way > 0 ? "facing" : "averted", radius: 0, area });
      continue;
    }
    if (c.kind === "other") continue;
    const axis = axisOf(c),
      like = `${c.kind} ${c.hollow}`,
      radius = widthOf(c);
    if (c.kind === "sphere") all.push({ at: dot3(c.centre, d), like, radius, area });
    else if (axis && Math.abs(dot3(axis.along, d)) <= SAME_DIRECTION)
      all.push({ at: dot3(axis.at, d), like, radius, area });
    // along its own axis a round face stands where its middle is: no carrier says so
    else if (axis && length3(cross3(axis.along, d)) <= SAME_DIRECTION)
      all.push({ at: dot3(c.kind === "cone" ? c.tip : centre, d), like: `${like} along`, radius, area: UNLIKE * area });
  }
  all.sort((a, b) => a.like.localeCompare(b.like) || a.radius - b.radius || a.at - b.at);
  const merged: Level[] = [];
  for (const l of all) {
    const last = merged[merged.length - 1];
    const isSame = last && last.like === l.like && Math.abs(l.radius - last.radius) <= near && l.at - last.at <= near;
    if (isSame) last.area += l.area;
    else merged.push({ ...l });
  }
  return merged.sort((a, b) => b.area - a.area).slice(0, MOST_LEVELS);
}

const widthOf = (c: Carrier): number => {
  if (c.kind === "torus") return c.major;
  if (c.kind === "elliptic") return c.halves[0];
  return "radius" in c ? c.radius : 0;
};

/** Shifts along one direction that bring levels together, the most area first. */
function wishesAlong(
  reference: readonly Face[],
  turned: readonly Face[],
  along: Vec3,
  size: number,
  near: number,
): Wish[] {
  const own = levelsOf(turned, along, near);
  const votes: { by: number; weight: number }[] = [];
  for (const r of levelsOf(reference, along, near))
    for (const s of own) {
      if (r.like !== s.like) continue;
      const alike = Math.abs(r.radius - s.radius) <= near && Math.abs(r.area - s.area) <= near * size;
      votes.push({ by: r.at - s.at, weight: Math.min(r.area, s.area) * (alike ? 1 : UNLIKE) });
    }
  votes.sort((a, b) => a.by - b.by);
  const list: Wish[] = [];
  for (const v of votes) {
    const last = list[list.length - 1];
    if (last && v.by - last.by <= near) last.weight += v.weight;
    else list.push({ along, ...v });
  }
  return list.sort((a, b) => b.weight - a.weight).slice(0, MOST_WISHES);
}

/**
 * Wishes along every one of the directions. @param turned the submission's faces, turned but not shifted
 * @param near what counts as one level, mm
 */
export const wishes = (
  reference: readonly Face[],
  turned: readonly Face[],
  directions: readonly Vec3[],
  size: number,
  near = SAME_PLACE * size,
): Wish[] =>
  directions.flatMap((d) => wishesAlong(reference, turned, d, size, near)).sort((a, b) => b.weight - a.weight);

interface Fixed {
  readonly q: Vec3;
  readonly value: number;
}

/** Shifts tried for one rotation, at most. */
const MOST_SHIFTS = 30;

/**
 * Solves the shift from wishes that together fix three directions; free directions keep the centres of area together.
 * @param branches how many wishes are tried at each turn, the strongest first
 */
export function shifts(list: readonly Wish[], fallback: Vec3, branches: number): Vec3[] {
  const results: Vec3[] = [];
  const extend = (basis: readonly Fixed[], from: number) => {
    if (results.length >= MOST_SHIFTS) return;
    if (basis.length === 3) return void results.push(combine(basis));
    let grew = 0;
    for (let i = from; i < list.length && grew < branches; i++) {
      const next = adopt(basis, list[i]!);
      if (!next) continue;
      grew++;
      extend(next, i + 1);
    }
    if (!grew) results.push(combine(completed(basis, fallback)));
  };
  extend([], 0);
  return results;
}

/** What no wish fixes, fixed by where the middles are. */
function completed(basis: readonly Fixed[], fallback: Vec3): Fixed[] {
  const full = [...basis];
  const axes: Vec3[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  for (const axis of axes) {
    const q = orthogonal(full, axis);
    if (q && full.length < 3) full.push({ q, value: dot3(q, fallback) });
  }
  return full;
}

const combine = (basis: readonly Fixed[]): Vec3 =>
  basis.reduce<Vec3>((s, { q, value }) => [s[0] + q[0] * value, s[1] + q[1] * value, s[2] + q[2] * value], [0, 0, 0]);

function orthogonal(basis: readonly { q: Vec3 }[], d: Vec3): Vec3 | undefined {
  let v = d;
  for (const { q } of basis) v = sub3(v, scale3(q, dot3(v, q)));
  return length3(v) > NOT_PARALLEL ? unit3(v) : undefined;
}

/** The basis with a wish taken in, or undefined when it only repeats what is fixed. */
function adopt(basis: readonly Fixed[], { along, by }: Wish): Fixed[] | undefined {
  const q = orthogonal(basis, along);
  if (!q) return undefined;
  // d·t = by and t = Σ q value: the part of d along what is fixed is known
  const known = basis.reduce((s, b) => s + dot3(along, b.q) * b.value, 0);
  return [...basis, { q, value: (by - known) / dot3(along, q) }];
}
