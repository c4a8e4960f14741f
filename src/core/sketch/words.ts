import { sub2, type Vec2 } from "@/core/geometry/vector";
import { lengthText, type LengthUnit } from "@/core/units/quantity";
import { curveKind } from "./curves/registry";
import { curveOf, nameOf, pointAt, takenApart, type Curve, type Sketch } from "./sketch";

type Drawn = Pick<Sketch, "curves">;

/** Lines count as level or upright within this slope; only words hang on it. */
const LEVEL = 0.02;
/** The outer thirds of a drawing are its left and right, top and bottom. */
const THIRD = 1 / 3;

/** The points a curve goes through or hangs on. */
const pointsOn = (c: Curve): Vec2[] => {
  const numbers = curveKind(c).numbers(c);
  return curveKind(c)
    .points(c)
    .map((_, i): Vec2 => [numbers[2 * i]!, numbers[2 * i + 1]!]);
};

const middleOf = (points: readonly Vec2[]): Vec2 => [
  points.reduce((s, p) => s + p[0], 0) / points.length,
  points.reduce((s, p) => s + p[1], 0) / points.length,
];

const radiusOf = (c: Curve): number | undefined => {
  if (c.kind === "circle") return c.radius;
  return c.kind === "arc" ? Math.hypot(...sub2(c.start, c.centre)) : undefined;
};

/** What a curve is, without where: "level line", "circle ⌀10". */
function sortOf(curve: Curve, unit: LengthUnit): string {
  const radius = radiusOf(curve);
  if (curve.kind === "circle") return `circle ⌀${lengthText(2 * radius!, unit, false)}`;
  if (curve.kind === "arc") return `arc R${lengthText(radius!, unit, false)}`;
  if (curve.kind === "ellipse-arc") return "arc of an ellipse";
  if (curve.kind !== "line") return curve.kind;
  const [dx, dy] = sub2(curve.end, curve.start).map(Math.abs) as [number, number];
  const way = dy <= LEVEL * dx ? "level" : dx <= LEVEL * dy ? "upright" : "slanting";
  return curve.construction === "centre-line" ? `${way} centre line` : `${way} line`;
}

type Box = readonly [min: Vec2, max: Vec2];

function boxOf(points: readonly Vec2[]): Box {
  const min: [number, number] = [Infinity, Infinity],
    max: [number, number] = [-Infinity, -Infinity];
  for (const p of points)
    for (const k of [0, 1] as const) {
      min[k] = Math.min(min[k], p[k]);
      max[k] = Math.max(max[k], p[k]);
    }
  return [min, max];
}

/** "at the top left": where a place lies in the drawing. */
function whereIn([min, max]: Box, at: Vec2): string {
  const word = (k: 0 | 1, low: string, high: string) => {
    const share = (at[k] - min[k]) / (max[k] - min[k]);
    if (share < THIRD) return low;
    return share > 1 - THIRD ? high : "";
  };
  const words = [word(1, "bottom", "top"), word(0, "left", "right")].filter(Boolean);
  return words.length ? `at the ${words.join(" ")}` : "in the middle";
}

type Calls = Map<Curve, string>;

/** Adds words to what is called alike. @param more the words of each of such a group */
function toldApart(calls: Calls, more: (alike: readonly Curve[]) => readonly string[]): void {
  const groups = new Map<string, Curve[]>();
  for (const [c, call] of calls) groups.set(call, [...(groups.get(call) ?? []), c]);
  for (const [call, alike] of groups) {
    if (alike.length < 2) continue;
    const words = more(alike);
    alike.forEach((c, i) => calls.set(c, `${call}${words[i]!}`));
  }
}

const ORDINALS = ["1st", "2nd", "3rd"];
const ordinal = (i: number) => ORDINALS[i] ?? `${i + 1}th`;

/** Counted off along the way in which they are spread out farther. */
export function countedOff(middles: readonly Vec2[]): string[] {
  const valuesOf = (k: 0 | 1) => middles.map((m) => m[k]);
  const spread = (k: 0 | 1) => Math.max(...valuesOf(k)) - Math.min(...valuesOf(k));
  const isRow = spread(0) >= spread(1);
  const values = valuesOf(isRow ? 0 : 1);
  const places = new Map(
    values
      .map((v, i) => [v, i] as const)
      .sort((a, b) => a[0] - b[0])
      .map(([, i], place) => [i, place]),
  );
  return values.map((_, i) => `, ${ordinal(places.get(i)!)} from ${isRow ? "the left" : "below"}`);
}

/** All curves of a sketch as a person would call them, each by words of its own. */
function called(sketch: Drawn, unit: LengthUnit): Calls {
  const all = sketch.curves.flatMap(pointsOn);
  const middle = (c: Curve) => middleOf(pointsOn(c));
  const box = boxOf(all);
  const calls: Calls = new Map(sketch.curves.map((c) => [c, sortOf(c, unit)]));
  toldApart(calls, (alike) => alike.map((c) => ` ${whereIn(box, middle(c))}`));
  toldApart(calls, (alike) =>
    alike.map((c) => (c.kind === "line" ? ` (${lengthText(Math.hypot(...sub2(c.end, c.start)), unit)})` : "")),
  );
  toldApart(calls, (alike) => countedOff(alike.map(middle)));
  return calls;
}

/** Which end of a curve a point of it is: "left end". */
function endOf(sketch: Drawn, ref: string): string | undefined {
  const [id, part] = takenApart(ref);
  if (part !== "start" && part !== "end") return undefined;
  const [x, y] = sub2(pointAt(sketch, ref), pointAt(sketch, `${id}.${part === "start" ? "end" : "start"}`));
  if (x === 0 && y === 0) return undefined;
  const side = Math.abs(x) >= Math.abs(y) ? (x < 0 ? "left" : "right") : y < 0 ? "lower" : "upper";
  return `the ${side} end of`;
}

interface Called {
  readonly curve: Curve;
  readonly call: string;
}
const known = new WeakMap<Drawn, Map<LengthUnit, Map<string, Called>>>();

/**
 * How a person would call things of a sketch as it is drawn, never by their ids.
 * @returns words for a reference: "the level line at the bottom", "the left end of the arc R5", "the origin"
 */
export function wordsFor(sketch: Drawn, unit: LengthUnit): (ref: string) => string {
  const byUnit = known.get(sketch) ?? new Map<LengthUnit, Map<string, Called>>();
  known.set(sketch, byUnit);
  return (ref) => {
    let calls = byUnit.get(unit);
    if (!calls) {
      const list = [...called(sketch, unit)];
      byUnit.set(unit, (calls = new Map(list.map(([curve, call]) => [curve.id, { curve, call: `the ${call}` }]))));
    }
    const id = curveOf(ref),
      it = calls.get(id);
    if (!it || ref === id) return it?.call ?? nameOf(ref);
    const end = endOf(sketch, ref);
    return end ? `${end} ${it.call}` : nameOf(ref).replace(/ of .*$/, ` of ${it.call}`);
  };
}
