import { textLength } from "@/core/formats/drawing";
import { add2, type Vec2 } from "@/core/geometry/vector";
import { readable } from "../views/direction";
import type { Item } from "./items";
import { arcPoints } from "../views/obstacles";
import { paperOf, type Placed } from "./placed";
import { boxAround, joinedBoxes, type Segment } from "../plane";
import type { AngularWay, Leg, Presentation } from "./presentation";
import { ARROW, FIRST, LEAST_INSIDE, NEXT, textOn } from "./straight";

type Angular = Presentation & AngularWay;

/** Where an angle's arc stands: its radius, and its number from the middle of the arc along it; mm of paper. */
interface AngularPlace {
  readonly radius: number;
  readonly shift: number;
}

const PAST = 2;
const TIERS = 8;
/** The least radius an arc is read at, and what it costs to stand further out. */
const LEAST = 12;
const RADIUS_COST = 0.25;
const EXTENSION_COST = 0.12;
const BEFORE = 1;

export function angularCandidates(item: Item, angular: Angular, scale: number, letter: number): Placed[] {
  const ends = angular.legs.map((l) => l.reach[1] * scale);
  const radii =
    angular.radius === undefined
      ? [
          ...Array.from({ length: TIERS }, (_, t) => LEAST + NEXT * t),
          ...Array.from({ length: TIERS / 2 }, (_, t) => Math.max(...ends) + FIRST + NEXT * t),
        ]
      : Array.from({ length: TIERS }, (_, t) => angular.radius! * scale + FIRST + NEXT * t);
  return radii.flatMap((radius) => {
    const out = besideShift(item, angular, radius, letter);
    return (out === 0 ? [0] : [out, -out]).map((shift) => angularAt(item, angular, { radius, shift }, scale, letter));
  });
}

/** Pulled so near to the middle a number goes there, mm. */
const TIDY = 3;

/** Where an angle's arc stands whose number is pulled to a place of the view's paper. */
export function angularTowards(item: Item, angular: Angular, to: Vec2, scale: number, letter: number): AngularPlace {
  const centre = paperOf(angular.view, scale)(angular.vertex),
    [a, b] = angular.legs;
  const way: Vec2 = [to[0] - centre[0], to[1] - centre[1]];
  const radius = Math.max(LEAST / 2, Math.hypot(...way) - letter / 2);
  const middle = (a.angle + b.angle) / 2;
  const turned = Math.atan2(way[1], way[0]) - middle,
    shift = (turned - 2 * Math.PI * Math.round(turned / (2 * Math.PI))) * radius;
  const out = besideShift(item, angular, radius, letter);
  const tidy = [...(out ? [out, -out] : [0])].find((s) => Math.abs(s - shift) < TIDY);
  const free = out === 0 || Math.abs(shift) > out ? shift : shift < 0 ? -out : out;
  return { radius, shift: tidy ?? free };
}

/** How far beside the middle a number stands that has no room on its arc; 0 where it has. */
function besideShift(item: Item, p: Angular, radius: number, letter: number): number {
  const long = textLength(item.lines[0]!.text, letter),
    span = turnOf(p) * radius;
  if (span > long + 1) return 0;
  return span / 2 + (span >= LEAST_INSIDE ? 1 : 2 * ARROW + 1) + long / 2;
}
const turnOf = ({ legs: [a, b] }: Angular): number => b.angle - a.angle;

export function angularAt(item: Item, p: Angular, place: AngularPlace, scale: number, letter: number): Placed {
  const { view, legs } = p,
    { radius, shift } = place,
    [a, b] = legs;
  const centre = paperOf(view, scale)(p.vertex),
    line = item.lines[0]!;
  const at = (angle: number, r = radius): Vec2 => add2(centre, [r * Math.cos(angle), r * Math.sin(angle)]);
  const long = textLength(line.text, letter),
    isInside = turnOf(p) * radius >= LEAST_INSIDE;
  const middle = (a.angle + b.angle) / 2 + shift / radius,
    half = long / 2 / radius,
    tail = isInside ? 0 : (2 * ARROW) / radius;
  const from = Math.min(a.angle - tail, shift === 0 ? a.angle : middle - half),
    to = Math.max(b.angle + tail, shift === 0 ? b.angle : middle + half);
  const along = readable([-Math.sin(middle), Math.cos(middle)]);
  const isAbove = along[0] * Math.sin(middle) - along[1] * Math.cos(middle) > 0;
  // inside of the arc its ends come nearer to the number
  const lift = isAbove ? 0 : long ** 2 / (8 * radius);
  const text = textOn(line, at(middle, radius - lift), along, letter, long);
  const extensions = legs.flatMap((l) => extension(l, radius, scale, at));
  const chords = arcPoints(centre, radius, from, to);
  const lines = chords.slice(1).map((q, i): Segment => [chords[i]!, q]);
  const round = (angle: number, sense: 1 | -1): Vec2 => [-Math.sin(angle) * sense, Math.cos(angle) * sense];
  const reach = extensions.reduce((s, [u, v]) => s + Math.hypot(v[0] - u[0], v[1] - u[1]), 0);
  return {
    item,
    view,
    texts: [text],
    lines,
    arc: { centre, radius, from, to },
    extensions,
    arrows: [
      { tip: at(a.angle), way: round(a.angle, isInside ? -1 : 1) },
      { tip: at(b.angle), way: round(b.angle, isInside ? 1 : -1) },
    ],
    box: joinedBoxes([text.box, boxAround([...lines, ...extensions].flat())]),
    own: p.fault + radius * RADIUS_COST + reach * EXTENSION_COST + (shift < 0 ? BEFORE : 0),
    place: { form: "angular", view: view.key, of: [...p.vertex], radius, shift },
  };
}

/** From where the leg's own line ends to the arc; none where the arc meets the line itself. */
function extension(l: Leg, radius: number, scale: number, at: (angle: number, r: number) => Vec2): Segment[] {
  const [near, far] = [l.reach[0] * scale, l.reach[1] * scale];
  if (radius > far) return [[at(l.angle, far), at(l.angle, radius + PAST)]];
  return radius < near ? [[at(l.angle, near), at(l.angle, Math.max(0, radius - PAST))]] : [];
}
