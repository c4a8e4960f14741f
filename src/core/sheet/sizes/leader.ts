import { textLength } from "@/core/formats/drawing";
import { add2, distance2, dot2, scale2, sub2, type Vec2 } from "@/core/geometry/vector";
import type { Item } from "./items";
import { paperOf, type Placed, type PlacedText } from "./placed";
import { boxAround, joinedBoxes, type Box, type Segment } from "../plane";
import { isOnArc } from "./present-leader";
import type { LeaderWay, Presentation, Tip, TouchedArc } from "./presentation";
import { LIFT } from "./straight";

/** So far past the outline a leader's shelf begins, and further steps. */
const BEYOND = 5;
const FURTHER = 5.5;
const LEADERS = 5;
const LINE_PITCH = 1.6;
/** What a millimetre of leader costs. */
const LEADER_COST = 0.35;

type Led = Presentation & LeaderWay;

/** Where a leader stands: what it points to (view coordinates), and its elbow from there, mm of paper. */
interface LeaderPlace {
  readonly tip: Vec2;
  readonly elbow: Vec2;
}

export function leaderCandidates(item: Item, led: Led, scale: number, letter: number): Placed[] {
  const toPaper = paperOf(led.view, scale),
    size = toPaper(led.view.box.max);
  return led.tips.flatMap((t) => {
    const exit = exitOf(toPaper(t.at), t.from, size);
    return Array.from({ length: LEADERS }, (_, k): Placed => {
      const reach = exit + BEYOND + FURTHER * k;
      return leaderAt(item, led, { tip: t.at, elbow: [t.from[0] * reach, t.from[1] * reach] }, scale, letter);
    });
  });
}

/**
 * The place to touch for an elbow that stays where it is: on an arc the one towards the elbow, so that the line points
 * to the centre, else the nearest that may be pointed to.
 * @param reach size of the view
 */
export function touching(
  p: LeaderWay,
  { tip, elbow }: LeaderPlace,
  scale: number,
  reach: number,
): LeaderPlace | undefined {
  const stands = add2(tip, scale2(elbow, 1 / scale));
  const from = (at: Vec2): LeaderPlace => ({ tip: at, elbow: scale2(sub2(stands, at), scale) });
  const off = (a: TouchedArc) => Math.abs(distance2(tip, a.centre) - a.radius);
  const arc = p.arcs?.reduce((best, a) => (off(a) < off(best) ? a : best));
  if (arc) {
    const way = sub2(stands, arc.centre),
      angle = Math.atan2(way[1], way[0]);
    // from inside of a large arc the line points outwards
    const at = [angle, angle + Math.PI].find((x) => isOnArc(arc, x));
    if (at !== undefined) return from(add2(arc.centre, [arc.radius * Math.cos(at), arc.radius * Math.sin(at)]));
  }
  const l = Math.hypot(...elbow) || 1;
  const worth = (t: Tip) => (10 * distance2(t.at, tip)) / reach - dot2(t.from, elbow) / l / 4;
  const best = p.tips.reduce<Tip | undefined>((b, t) => (b && worth(b) <= worth(t) ? b : t), undefined);
  return best && from(best.at);
}

export function leaderAt(item: Item, led: Led, { tip, elbow: to }: LeaderPlace, scale: number, letter: number): Placed {
  const { view } = led;
  const at = paperOf(view, scale)(tip);
  const long = Math.max(...item.lines.map((l) => textLength(l.text, letter)));
  const isRight = to[0] >= 0,
    reach = Math.hypot(...to) || 1;
  const elbow = add2(at, to);
  const end: Vec2 = [elbow[0] + (isRight ? 1 : -1) * (long + 1.5), elbow[1]];
  const texts = item.lines.map((line, n): PlacedText => {
    // the first above its shelf, the others below
    const y = n === 0 ? elbow[1] + LIFT : elbow[1] - LIFT - letter - (n - 1) * letter * LINE_PITCH;
    const x = isRight ? elbow[0] + 0.8 : end[0] + 0.8;
    const box: Box = { min: [x, y], max: [x + textLength(line.text, letter), y + letter] };
    return { line, at: [x, y], anchor: "start", turn: 0, box };
  });
  const lines: Segment[] = [
    [at, elbow],
    [elbow, end],
  ];
  return {
    item,
    view,
    texts,
    lines,
    extensions: [],
    arrows: [{ tip: at, way: [-to[0] / reach, -to[1] / reach] }],
    box: joinedBoxes([...texts.map((t) => t.box), boxAround(lines.flat())]),
    own: led.fault + reach * LEADER_COST,
    place: { form: "leader", view: view.key, tip: [...tip], elbow: [...to] },
  };
}

/** How far it is from a place to the edge of the view along a direction. */
function exitOf(at: Vec2, way: Vec2, size: Vec2): number {
  const to = ([0, 1] as const).map((i) => {
    if (way[i] === 0) return Infinity;
    return way[i] > 0 ? (size[i] - at[i]) / way[i] : -at[i] / way[i];
  });
  return Math.max(0, Math.min(...to));
}
