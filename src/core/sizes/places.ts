import type { Vec3 } from "@/core/geometry/vector";
import type { Carrier } from "@/core/kernel/carrier";
import type { Properties } from "@/core/kernel/properties";
import { BOX_SLACK } from "./tolerance";

type Box = Properties["box"];

/** Ends of the part along x, y and z, from the lesser to the greater, as the front view shows them. */
const ENDS = [
  ["left", "right"],
  ["front", "back"],
  ["bottom", "top"],
] as const;
const OUTER = [
  ["left end face", "right end face"],
  ["front face", "back face"],
  ["underside", "top face"],
] as const;
const LOOKS = [
  ["looking left", "looking right"],
  ["looking to the front", "looking to the back"],
  ["looking down", "looking up"],
] as const;

/** The axis that a direction runs along, either way. */
export const axisAlong = (way: Vec3): number | undefined => [0, 1, 2].find((i) => Math.abs(way[i]!) > 0.999_999);

/** What a flat face is called by the way it looks, and whether it is the outermost one there. */
export function sideOf(c: Extract<Carrier, { kind: "plane" }>, box: Box): { name: string; isOuter: boolean } {
  const axis = axisAlong(c.normal);
  if (axis === undefined) return { name: "slanting face", isOuter: false };
  const way = c.normal[axis]! > 0 ? 1 : 0;
  const end = way ? box.max[axis]! : box.min[axis]!;
  const at = c.offset * Math.sign(c.normal[axis]!);
  const isOuter = Math.abs(end - at) <= BOX_SLACK;
  return isOuter ? { name: OUTER[axis]![way]!, isOuter } : { name: `inner face ${LOOKS[axis]![way]!}`, isOuter };
}

/** Thirds of the part: which end something is at along an axis, or its middle. */
function third(at: number, low: number, high: number): -1 | 0 | 1 {
  const share = high > low ? (at - low) / (high - low) : 0.5;
  if (share < 0.4) return -1;
  return share > 0.6 ? 1 : 0;
}

/** Words for where things are, so that no two read alike where words can tell them apart; empty for a single one. */
export function placesFor(points: readonly Vec3[], box: Box): string[] {
  if (points.length < 2) return points.map(() => "");
  const spots = points.map((p) => [0, 1, 2].map((i) => third(p[i]!, box.min[i]!, box.max[i]!)));
  // the axis along which they differ most is named first
  const order = [0, 1, 2].sort((a, b) => spread(points, b) - spread(points, a) || a - b);
  const rows = points.length > MANY ? inRows(points, order[0]!, order[1]!) : undefined;
  if (rows) return rows;
  const using: number[] = [];
  for (const axis of order) {
    if (new Set(spots.map((s) => key(s, using))).size === points.length) break;
    if (new Set(spots.map((s) => s[axis])).size > 1) using.push(axis);
  }
  const words = spots.map((s) => wordsOf(s, using));
  // of those that still read alike the nth along the widest axis is meant
  const [axis = 0] = order;
  return words.map((w, i) => {
    const alike = words.flatMap((o, k) => (o === w ? [k] : []));
    if (alike.length === 1) return w;
    const sorted = [...alike].sort((a, b) => points[a]![axis]! - points[b]![axis]! || a - b);
    return `${w}, ${ordinal(sorted.indexOf(i) + 1)} of ${alike.length} from the ${ENDS[axis]![0]}`;
  });
}

/** More than so many are counted by rows: ends and middles no longer tell them apart. */
const MANY = 9;

/** "in row 3 from the front, 2nd from the left"; undefined where they do not stand in rows. */
function inRows(points: readonly Vec3[], along: number, across: number): string[] | undefined {
  const levels: number[] = [];
  const rowOf = (p: Vec3) => levels.findIndex((l) => Math.abs(l - p[across]!) <= BOX_SLACK);
  for (const p of points) if (rowOf(p) < 0) levels.push(p[across]!);
  if (levels.length > points.length / 2) return undefined;
  levels.sort((a, b) => a - b);
  const words = points.map((p) => {
    const before = points.filter((o) => rowOf(o) === rowOf(p) && o[along]! < p[along]! - BOX_SLACK).length;
    const row = levels.length > 1 ? ` in row ${rowOf(p) + 1} from the ${ENDS[across]![0]},` : ",";
    return `${row} ${ordinal(before + 1)} from the ${ENDS[along]![0]}`;
  });
  return new Set(words).size === points.length ? words : undefined;
}

const key = (spot: readonly number[], using: readonly number[]) => using.map((a) => spot[a]).join();
const spread = (points: readonly Vec3[], axis: number): number => {
  const all = points.map((p) => p[axis]!);
  return Math.round(Math.max(...all) - Math.min(...all));
};

function wordsOf(spot: readonly number[], using: readonly number[]): string {
  if (!using.length) return "";
  const ends = using.flatMap((a) => (spot[a] === 0 ? [] : [ENDS[a]![spot[a]! > 0 ? 1 : 0]!]));
  if (!ends.length) return " in the middle";
  return ` at the ${ends.join(" ")}`;
}

function ordinal(n: number): string {
  const last = n % 10,
    isTeen = n % 100 > 10 && n % 100 < 14;
  const ending = isTeen ? "th" : (["th", "st", "nd", "rd"][last] ?? "th");
  return `${n}${ending}`;
}
