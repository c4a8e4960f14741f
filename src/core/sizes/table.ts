import type { Carrier } from "@/core/kernel/carrier";
import { axisOf, mappedCarrier } from "@/core/kernel/carrier";
import { footOn, turnedPoint, turnedVector } from "@/core/geometry/line";
import {
  anyAcross,
  add3,
  cross3,
  distance3,
  dot3,
  length3,
  scale3,
  sub3,
  type Vec2,
  type Vec3,
} from "@/core/geometry/vector";
import { isCoaxial, isParallel, isSquare, type Carriers } from "./anchor";
import { keyOf, type SizedBody } from "./body";
import { driftOf, type Disturbance } from "./disturb";
import type { DrivingNumber } from "./numbers";
import { Span, type Row } from "./rank";
import { measureSize, type SizeReading, type SizeValue } from "./size";
import type { Size } from "./kinds/kinds";
import { DISTURB_ANGLE, EQUAL, FOLLOWS, JUMP, PARALLEL, TOUCHING } from "./tolerance";

/** A size measured on the reference, with how each of its numbers follows each driving number. */
export interface Followed {
  readonly reading: SizeReading;
  /** Change of the number for a change of the driving one; angles counted as lengths at half the body's size. */
  readonly rows: readonly Row[];
  /** Further rows, where its places hang on numbers of their own: of which of its numbers, and the row. */
  readonly parted: readonly { readonly of: number; readonly row: Row }[];
}

/** What an angle of one radian counts for, mm: what it moves at the rim of the body. */
const angleScale = (size: number): number => size / 2;

const weigh = (v: { quantity: SizeValue["quantity"] | DrivingNumber["quantity"] }, size: number): number =>
  v.quantity === "angle" ? angleScale(size) : 1;

/**
 * How a size follows every number.
 * @returns undefined where it cannot be read on the reference, where its places differ there, or where it cannot be
 * read after some change
 */
export function follow(size: Size, body: SizedBody, changes: readonly Disturbance[]): Followed | undefined {
  const base = measureSize(size, body.on),
    [reading] = base;
  if (!reading || base.some((r) => !r || !isAlike(r, reading))) return undefined;
  const places = base.map(() => reading.map((): Row => new Float64Array(changes.length)));
  for (const [k, change] of changes.entries())
    for (const [place, now] of measureSize(size, change.on).entries()) {
      if (!now) return undefined;
      for (const [i, v] of reading.entries()) {
        if (v.quantity === "count") continue;
        const moved = (now[i]!.value - v.value) * weigh(v, body.size);
        const slope = moved / (change.by * weigh(change.number, body.size));
        if (Math.abs(slope) > JUMP) return undefined;
        places[place]![i]![k] = Math.abs(slope) < FOLLOWS ? 0 : slope;
      }
    }
  const [first, ...others] = places;
  const parted: Followed["parted"][number][] = [];
  // places that have numbers of their own say more than one thing
  for (const place of others)
    place.forEach((row, i) => {
      const known = [{ of: i, row: first![i]! }, ...parted].some((p) => p.of === i && isSameRow(p.row, row));
      if (!known) parted.push({ of: i, row });
    });
  return { reading, rows: first!, parted };
}

const isSameRow = (a: Row, b: Row): boolean => a.every((v, i) => Math.abs(v - b[i]!) <= FOLLOWS);

/** All that a size says: rows of its first place, and of those that follow other numbers. */
export const allRows = (f: Followed): Row[] => [...f.rows, ...f.parted.map((p) => p.row)];

/**
 * What a drawing says without a number: axes drawn as one are one, flat faces drawn at one level are level. How far
 * they part when each number changes.
 */
export function impliedRows(body: SizedBody, changes: readonly Disturbance[]): Row[] {
  const { surfaces } = body;
  const rows: Row[] = [];
  const give = (part: (on: Carriers) => number | undefined) => {
    const row = new Float64Array(changes.length);
    for (const [k, c] of changes.entries()) {
      const apart = part(c.on);
      if (apart === undefined) return;
      const slope = apart / (c.by * weigh(c.number, body.size));
      row[k] = Math.abs(slope) < FOLLOWS ? 0 : slope;
    }
    if (row.some((v) => v !== 0)) rows.push(row);
  };
  for (const [i, a] of surfaces.entries()) {
    // an ellipse whose axes run as a flat face looks, or along it, is drawn so
    const level =
      a.carrier.kind === "elliptic" ? surfaces.find((b) => leanOfLong(a.carrier, b.carrier) !== undefined) : undefined;
    if (level)
      give((on) => {
        const lean = leanOfLong(on(keyOf(a)), on(keyOf(level)), true);
        return lean === undefined ? undefined : lean * angleScale(body.size);
      });
    // tubes one within the other run round one middle line
    const within = surfaces.slice(i + 1).find((b) => majorsApart(a.carrier, b.carrier) === 0);
    if (within) give((on) => majorsApart(on(keyOf(a)), on(keyOf(within)), true));
    const p = axisOf(a.carrier);
    // one partner is enough: the next has its own
    const partner = surfaces.slice(i + 1).find((b) => isAligned(a.carrier, b.carrier));
    if (!partner) continue;
    const [one, other] = [keyOf(a), keyOf(partner)];
    if (!p) {
      give((on) => levelsApart(on(one), on(other)));
      continue;
    }
    const across = anyAcross(p.along);
    for (const way of [across, cross3(p.along, across)])
      give((on) => {
        const [c, d] = [on(one), on(other)];
        const [l, m] = [c && axisOf(c), d && axisOf(d)];
        return l && m ? dot3(sub3(footOn(a.centre, m), footOn(a.centre, l)), way) : undefined;
      });
  }
  return rows;
}

function isAligned(a: Carrier, b: Carrier): boolean {
  if (a.kind === "plane") return levelsApart(a, b) !== undefined && Math.abs(levelsApart(a, b)!) <= TOUCHING;
  const [p, q] = [axisOf(a), axisOf(b)];
  return !!p && !!q && isCoaxial(p, q);
}
function levelsApart(a: Carrier | undefined, b: Carrier | undefined): number | undefined {
  if (a?.kind !== "plane" || b?.kind !== "plane" || !isParallel(a.normal, b.normal)) return undefined;
  return b.offset * Math.sign(dot3(a.normal, b.normal)) - a.offset;
}

/** By how much the middle lines of rings about one middle differ in radius, mm: 0 where that is as good as nothing. */
function majorsApart(a: Carrier | undefined, b: Carrier | undefined, isNear = false): number | undefined {
  if (a?.kind !== "torus" || b?.kind !== "torus" || !isParallel(a.axis, b.axis)) return undefined;
  const apart = b.major - a.major;
  if (isNear) return apart;
  return distance3(a.centre, b.centre) <= TOUCHING && Math.abs(apart) <= TOUCHING ? 0 : undefined;
}

/**
 * By how much, radians, the longer axis of an ellipse leans from how a flat face looks or from its plane; none where it
 * runs neither so nor so.
 * @param isNear however much it leans
 */
function leanOfLong(ellipse: Carrier | undefined, flat: Carrier | undefined, isNear = false): number | undefined {
  if (ellipse?.kind !== "elliptic" || flat?.kind !== "plane" || !isSquare(ellipse.axis, flat.normal)) return undefined;
  const [along, aside] = [ellipse.long, cross3(ellipse.axis, ellipse.long)].map((way) => dot3(way, flat.normal)) as [
    number,
    number,
  ];
  const lean = Math.abs(along) < Math.abs(aside) ? along : aside;
  return isNear || Math.abs(lean) <= PARALLEL ? lean : undefined;
}

const isAlike = (a: SizeReading, b: SizeReading): boolean =>
  a.length === b.length && a.every((v, i) => Math.abs(v.value - b[i]!.value) <= EQUAL);

/**
 * Where a carrier stands and how large it is, in numbers that are lengths.
 * @param like what it was: an axis that points the other way is the same axis, but for a cone's
 */
function numbersOf(c: Carrier, like: Carrier, middle: Vec3, size: number): number[] {
  const scaled = (d: Vec3) => scale3(d, angleScale(size));
  if (c.kind === "plane") return [...scaled(c.normal), c.offset - dot3(c.normal, middle)];
  if (c.kind === "sphere") return [...c.centre, c.radius];
  if (like.kind === "other") return driftOf(like, c);
  const axis = axisOf(c);
  if (!axis) return [];
  const foot = "at" in c ? footOn(middle, axis) : axis.at;
  const own = ownNumbers(c, like, size);
  const was = axisOf(like)?.along ?? axis.along;
  const along = c.kind !== "cone" && dot3(was, axis.along) < 0 ? scale3(axis.along, -1) : axis.along;
  return [...scaled(along), ...foot, ...own];
}

/** What a round carrier has beside its axis, in lengths. */
function ownNumbers(c: Carrier, like: Carrier, size: number): number[] {
  switch (c.kind) {
    case "cylinder":
      return [c.radius];
    case "cone":
      return [c.half * angleScale(size)];
    case "torus":
      return [c.major, c.minor];
    case "elliptic": {
      const isTurned = like.kind === "elliptic" && dot3(like.long, c.long) < 0;
      return [...c.halves, ...scale3(c.long, angleScale(size) * (isTurned ? -1 : 1))];
    }
    default:
      return [];
  }
}

/**
 * In how many ways the shape of a part changes when its numbers do: the rank of where its faces go, motions of the
 * whole left out. No set of sizes can tell more.
 */
export function shapeRank(body: SizedBody, changes: readonly Disturbance[]): number {
  const { surfaces, size } = body,
    middle = scale3(add3(body.box.min, body.box.max), 0.5);
  const of = (on: (s: (typeof surfaces)[number]) => Carrier): number[] =>
    surfaces.flatMap((s) => numbersOf(on(s), s.carrier, middle, size));
  const base = of((s) => s.carrier);
  const span = new Span();
  const difference = (other: readonly number[], by: number): Row =>
    Float64Array.from(base, (v, i) => {
      const slope = (other[i]! - v) / by;
      return Math.abs(slope) < FOLLOWS ? 0 : slope;
    });
  const axes: Vec3[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  for (const d of axes) {
    const shifted = of((s) =>
      mappedCarrier(
        s.carrier,
        (p) => add3(p, d),
        (v) => v,
      ),
    );
    span.takeAll([difference(shifted, 1)]);
    // small enough that turning is linear
    const turn = DISTURB_ANGLE;
    const line = { at: middle, along: d };
    const turned = of((s) =>
      mappedCarrier(
        s.carrier,
        (p) => turnedPoint(p, line, turn),
        (v) => turnedVector(v, d, turn),
      ),
    );
    span.takeAll([difference(turned, turn * angleScale(size))]);
  }
  const rigid = span.rank;
  for (const c of changes) {
    const moved = of((s) => c.on(keyOf(s)) ?? s.carrier);
    span.takeAll([difference(moved, c.by * weigh(c.number, size))]);
  }
  return span.rank - rigid;
}

/**
 * How the volume follows each number, mm³ per mm (or per the same share of an angle): by how far each face moves
 * along its normal, to first order. Exact for planes, cylinders and balls.
 */
export function volumeRow(body: SizedBody, changes: readonly Disturbance[]): Row {
  return Float64Array.from(changes, (change) => {
    let sum = 0;
    for (const s of body.surfaces) {
      const now = change.on(keyOf(s));
      if (now) sum += s.area * outwards(s.carrier, now, s.centre);
    }
    return sum / (change.by * weigh(change.number, body.size));
  });
}

/** How far a carrier has moved out of the material, on average over a face with this middle, mm. */
function outwards(was: Carrier, now: Carrier, centre: Vec3): number {
  if (was.kind === "plane" && now.kind === "plane")
    return now.offset - was.offset - dot3(sub3(now.normal, was.normal), centre);
  if (was.kind === "sphere" && now.kind === "sphere") {
    const sign = was.hollow ? -1 : 1;
    const shift = dot3(sub3(now.centre, was.centre), scale3(sub3(centre, was.centre), 1 / was.radius));
    return sign * (now.radius - was.radius + shift);
  }
  if (was.kind === "other") return mean(driftOf(was, now));
  const [p, q] = [axisOf(was), axisOf(now)];
  if (!p || !q || !("hollow" in was)) return 0;
  const sign = was.hollow ? -1 : 1,
    out = sub3(centre, footOn(centre, p)),
    shift = sub3(footOn(centre, q), footOn(centre, p));
  if (was.kind === "cylinder" && now.kind === "cylinder")
    return sign * (now.radius - was.radius + dot3(shift, out) / was.radius);
  if (was.kind === "cone" && now.kind === "cone") {
    const radius = (c: typeof was, at: Vec3) => length3(sub3(at, c.tip)) * Math.tan(c.half);
    const grown = radius(now, footOn(centre, q)) - radius(was, footOn(centre, p));
    return sign * Math.cos(was.half) * grown;
  }
  if (was.kind === "torus" && now.kind === "torus") return sign * (now.minor - was.minor);
  if (was.kind === "elliptic" && now.kind === "elliptic") return sign * grownEllipse(was.halves, now.halves);
  return 0;
}

/** By how much a whole ellipse grew over its length, mm: change of π·a·b over its rim (Ramanujan 1914). */
function grownEllipse([a, b]: Vec2, [c, d]: Vec2): number {
  const h = ((a - b) / (a + b)) ** 2,
    rim = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
  return (Math.PI * (c * d - a * b)) / rim;
}
const mean = (list: readonly number[]): number => list.reduce((sum, each) => sum + each, 0) / (list.length || 1);
