import { textLength } from "@/core/formats/drawing";
import { add2, dot2, scale2, type Vec2 } from "@/core/geometry/vector";
import { above, isUpright, reachOf, readable, turnOf } from "../views/direction";
import type { Item, ItemLine } from "./items";
import { paperOf, type Placed, type PlacedText } from "./placed";
import { boxAround, boxCorners, joinedBoxes, type Segment } from "../plane";
import type { End, Presentation, StraightWay } from "./presentation";

/** Measures of a draughtsman's practice, mm: first line from the outline, from line to line, heads. */
export const FIRST = 10;
export const NEXT = 7;
export const ARROW = 3;
const PAST = 2;
const TIERS = 9;
/** What a further tier costs, and a millimetre of extension line. */
const TIER_COST = 2.5;
const EXTENSION_COST = 0.12;
/** What speaks against a line below or at the right, a number before it, and a slanting line. */
const FAR_SIDE = 1.5;
const BEFORE = 1;
const SLANTING = 6;
/** Between a line and the number above it. */
export const LIFT = 0.8;
/** Below this room heads stand outside. */
export const LEAST_INSIDE = 8;

type Straight = Presentation & StraightWay;

/** Where a straight dimension stands: which side, how far out, and its number's middle from that of the line; mm. */
interface StraightPlace {
  readonly side: 1 | -1;
  readonly offset: number;
  readonly shift: number;
  readonly ordinate?: boolean | undefined;
}

/** Every way a straight dimension could be drawn: on either side, in tiers. */
export function straightCandidates(item: Item, p: Straight, scale: number, letter: number): Placed[] {
  const g = ground(item, p, scale, letter);
  const shifts = g.isRoomy ? [0] : [outsideShift(g), -outsideShift(g)];
  return ([1, -1] as const).flatMap((side) =>
    Array.from({ length: TIERS }, (_, t) => FIRST + NEXT * t).flatMap((offset) =>
      shifts.map((shift) => drawn(g, { side, offset, shift })),
    ),
  );
}

/** A straight dimension where somebody has put it. */
export const straightAt = (item: Item, p: Straight, place: StraightPlace, scale: number, letter: number): Placed =>
  drawn(ground(item, p, scale, letter), place);

/** Pulled so near to a tidy place it goes there, mm. */
const TIDY = 2.5;

/** Where a straight dimension stands whose number is pulled to a place of the view's paper. */
export function straightTowards(item: Item, p: Straight, to: Vec2, scale: number, letter: number): StraightPlace {
  const g = ground(item, p, scale, letter);
  const [u, v] = [dot2(to, p.along), dot2(to, above(p.along)) - letter / 2];
  const side = v > (g.edge[0] + g.edge[1]) / 2 ? 1 : -1;
  const offset = side > 0 ? v - g.edge[1] : g.edge[0] - v;
  const tier = FIRST + NEXT * Math.round((offset - FIRST) / NEXT);
  const shift = u - (g.ends[0].u + g.ends[1].u) / 2;
  const out = outsideShift(g);
  const tidy = [...(g.isRoomy ? [0] : []), out, -out].find((s) => Math.abs(s - shift) < TIDY);
  // a number that has no room stands beside its line
  const free = g.isRoomy || Math.abs(shift) > out ? shift : shift < 0 ? -out : out;
  return {
    side,
    offset: tier >= FIRST && Math.abs(tier - offset) < TIDY ? tier : offset,
    shift: tidy ?? free,
  };
}

interface Ground {
  readonly item: Item;
  readonly p: Straight;
  readonly line: ItemLine;
  readonly letter: number;
  readonly long: number;
  /** The two ends as the size names them, and along the line. */
  readonly named: readonly [PaperEnd, PaperEnd];
  readonly ends: readonly [PaperEnd, PaperEnd];
  /** How far the view's things reach across, least and most. */
  readonly edge: readonly [number, number];
  readonly span: number;
  readonly isRoomy: boolean;
}
interface PaperEnd {
  readonly u: number;
  readonly across: readonly [number, number];
}

function ground(item: Item, straight: Straight, scale: number, letter: number): Ground {
  const { view, along } = straight,
    n = above(along),
    toPaper = paperOf(view, scale);
  const zero = dot2(view.box.min, n);
  const inPaper = (e: End): PaperEnd => ({
    u: dot2(toPaper(e.at), along),
    across: [(e.across[0] - zero) * scale, (e.across[1] - zero) * scale],
  });
  const named = [inPaper(straight.a), inPaper(straight.b)] as const;
  const ends = [...named].sort((a, b) => a.u - b.u) as [PaperEnd, PaperEnd];
  const line = item.lines[0]!,
    long = textLength(line.text, letter),
    span = ends[1].u - ends[0].u;
  // a slanting line stands beside its own thing, not beside the whole
  const edge = isUpright(along)
    ? reachOf([toPaper(view.box.min), toPaper(view.box.max)], n)
    : reachOf(
        ends.flatMap((e): Vec2[] => e.across.map((v): Vec2 => [v, 0])),
        [1, 0],
      );
  return { item, p: straight, line, letter, long, named, ends, edge, span, isRoomy: span > long + 1 };
}

/** So far beside the middle of the line stands a number that has no room on it. */
function outsideShift({ span, long }: Ground): number {
  const out = (span >= LEAST_INSIDE ? 1 : 2 * ARROW + 1) + long / 2;
  return span / 2 + out;
}

/** A number at the end of an extension line, in line with it, and the zero it counts from (ISO 129-1, 9.3.5). */
function ordinate(g: Ground, { side, offset }: StraightPlace): Placed {
  const { item, p, line, letter, edge } = g,
    { view, along } = p,
    n = above(along);
  const v = (side > 0 ? edge[1] : edge[0]) + side * offset;
  const put = (u: number, w: number): Vec2 => add2(scale2(along, u), scale2(n, w));
  const way = readable(n);
  const at = ({ u, across }: PaperEnd, said: ItemLine): { text: PlacedText; extension: Segment } => {
    const long = textLength(said.text, letter);
    const middle = add2(put(u, v + side * (1 + long / 2)), scale2(above(way), -LIFT - letter / 2));
    return {
      text: textOn(said, middle, way, letter, long),
      extension: [put(u, side > 0 ? across[1] : across[0]), put(u, v)],
    };
  };
  const [zero, counted] = g.named;
  const ends = [at(counted, line), at(zero, { id: "", kind: "letter", text: "0", values: [] })];
  const texts = ends.map((e) => e.text),
    extensions = ends.map((e) => e.extension);
  return {
    item,
    view,
    texts,
    lines: [],
    extensions,
    arrows: [],
    box: joinedBoxes([...texts.map((t) => t.box), boxAround(extensions.flat())]),
    own: p.fault,
    place: { form: "straight", view: view.key, of: [...p.a.at], side, offset, shift: 0, ordinate: true },
  };
}

function drawn(g: Ground, place: StraightPlace): Placed {
  if (place.ordinate) return ordinate(g, place);
  const { side, offset, shift } = place;
  const { item, p, line, letter, long, edge, span } = g,
    [first, second] = g.ends;
  const { view, along } = p,
    n = above(along);
  const put = (u: number, v: number): Vec2 => add2(scale2(along, u), scale2(n, v));
  const v = (side > 0 ? edge[1] : edge[0]) + side * offset;
  const extensions = g.ends.map((e): Segment => {
    const from = side > 0 ? e.across[1] : e.across[0];
    return [put(e.u, from), put(e.u, v + side * PAST)];
  });
  const isInside = span >= LEAST_INSIDE;
  const middle = (first.u + second.u) / 2 + shift,
    tail = isInside ? 0 : 2 * ARROW;
  // the line goes on under a number that stands beside it
  const [from, to] = [Math.min(first.u - tail, middle - long / 2), Math.max(second.u + tail, middle + long / 2)];
  const isOver = middle - long / 2 > first.u && middle + long / 2 < second.u;
  const lines: Segment[] = [isOver ? [put(first.u - tail, v), put(second.u + tail, v)] : [put(from, v), put(to, v)]];
  const text = textOn(line, put(middle, v), along, letter, long);
  const arrows = [
    { tip: put(first.u, v), way: scale2(along, isInside ? -1 : 1) },
    { tip: put(second.u, v), way: scale2(along, isInside ? 1 : -1) },
  ];
  const reach = extensions.reduce((s, [a, b]) => s + Math.abs(dot2(b, n) - dot2(a, n)), 0);
  const dislikes = (side > 0 ? 0 : FAR_SIDE) + (shift < 0 ? BEFORE : 0) + (isUpright(along) ? 0 : SLANTING) + p.fault;
  return {
    item,
    view,
    texts: [text],
    lines,
    extensions,
    arrows,
    box: joinedBoxes([text.box, boxAround([...lines, ...extensions].flat())]),
    tier: {
      side: `${turnOf(along).toFixed(1)} ${side}`,
      offset: side * v,
      from: Math.min(first.u, middle - long / 2),
      to: Math.max(second.u, middle + long / 2),
    },
    own: dislikes + ((offset - FIRST) / NEXT) * TIER_COST + reach * EXTENSION_COST,
    place: { form: "straight", view: view.key, of: [...p.a.at], side, offset, shift },
  };
}

/** A number above a line, its middle over a place of it. */
export function textOn(line: ItemLine, on: Vec2, along: Vec2, letter: number, long: number): PlacedText {
  const n = above(along),
    at = add2(on, scale2(n, LIFT));
  const corners = boxCorners({ min: [-long / 2, 0], max: [long / 2, letter] });
  const box = boxAround(corners.map(([u, v]) => add2(at, add2(scale2(along, u), scale2(n, v)))));
  return { line, at, anchor: "middle", turn: turnOf(along), box };
}
