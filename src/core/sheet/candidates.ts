import { textLength } from "@/core/formats/drawing";
import type { Vec2 } from "@/core/geometry/vector";
import type { Item, ItemLine } from "./items";
import { paperOf, type Placed, type PlacedText } from "./placed";
import { boxAround, joinedBoxes, type Box, type Segment } from "./plane";
import type { End, Presentation, Tip } from "./present";

/** Measures of a draughtsman's practice, mm: first line from the outline, from line to line, heads. */
const FIRST = 10;
export const NEXT = 7;
export const ARROW = 3;
const PAST = 2;
const TIERS = 9;
/** What a further tier costs, a millimetre of extension line, and one of leader. */
const TIER_COST = 2.5;
const EXTENSION_COST = 0.12;
const LEADER_COST = 0.35;
/** Between a line and the number above it. */
const LIFT = 0.8;
/** Below this room heads stand outside. */
const LEAST_INSIDE = 8;
const LINE_PITCH = 1.6;

/** Every way an item could be drawn. */
export function candidates(item: Item, scale: number, letter: number): Placed[] {
  const best = item.presentations[0]!.fault;
  return item.presentations
    .filter((p) => p.fault <= best + WORSE)
    .flatMap((p) =>
      p.form === "linear" ? straight(item, p, scale, letter) : p.tips.flatMap((t) => leader(item, p, t, scale, letter)),
    );
}
const WORSE = 30;

type Linear = Extract<Presentation, { form: "linear" }>;

function straight(item: Item, p: Linear, scale: number, letter: number): Placed[] {
  const { view, along } = p;
  const toPaper = paperOf(view, scale);
  const [i, k] = along === "x" ? ([0, 1] as const) : ([1, 0] as const);
  const size = toPaper(view.box.max);
  const [line] = item.lines as [ItemLine];
  const long = textLength(line.text, letter);
  const put = (u: number, v: number): Vec2 => (i === 0 ? [u, v] : [v, u]);
  const inPaper = (e: End) => ({
    u: toPaper(e.at)[i],
    low: (e.across[0] - view.box.min[k]) * scale,
    high: (e.across[1] - view.box.min[k]) * scale,
  });
  const [first, second] = [inPaper(p.a), inPaper(p.b)].sort((a, b) => a.u - b.u) as [Ends, Ends];
  const span = second.u - first.u;
  const isRoomy = span > long + 1;
  const sides = [
    { side: `${along}+`, sign: 1, edge: size[k], from: (e: Ends) => e.high },
    { side: `${along}-`, sign: -1, edge: 0, from: (e: Ends) => e.low },
  ] as const;
  const list: Placed[] = [];
  for (const { side, sign, edge, from } of sides)
    for (let t = 0; t < TIERS; t++)
      for (const after of isRoomy ? [true] : [true, false]) {
        const offset = FIRST + NEXT * t,
          v = edge + sign * offset;
        const extensions = [first, second].map((e): Segment => [put(e.u, from(e)), put(e.u, v + sign * PAST)]);
        const arrowsInside = span >= LEAST_INSIDE;
        const lines = dimensionLine(first.u, second.u, v, put, isRoomy, arrowsInside, after, long);
        const at = textPlace(first.u, second.u, isRoomy, arrowsInside, after, long);
        const text = textAt(line, at, v, along, letter, long);
        const way = (s: 1 | -1): Vec2 => (i === 0 ? [s, 0] : [0, s]);
        const arrows = [
          { tip: put(first.u, v), way: way(arrowsInside ? -1 : 1) },
          { tip: put(second.u, v), way: way(arrowsInside ? 1 : -1) },
        ];
        const reach = extensions.reduce((s, [a, b]) => s + Math.abs(b[k] - a[k]), 0);
        // above and at the left first, as a drawing is read
        const prefer = (along === "x") === sign > 0 ? 0 : 1.5;
        list.push({
          item,
          view,
          texts: [text],
          lines,
          extensions,
          arrows,
          box: joinedBoxes([text.box, boxAround([...lines, ...extensions].flat())]),
          tier: {
            side,
            offset,
            from: Math.min(first.u, at - long / 2),
            to: Math.max(second.u, at + long / 2),
          },
          own: p.fault + t * TIER_COST + reach * EXTENSION_COST + prefer + (isRoomy ? 0 : after ? 0 : 1),
        });
      }
  return list;
}
interface Ends {
  readonly u: number;
  readonly low: number;
  readonly high: number;
}

/** Where the number's middle is along the line. */
function textPlace(a: number, b: number, isRoomy: boolean, inside: boolean, after: boolean, long: number): number {
  if (isRoomy) return (a + b) / 2;
  const out = (inside ? 1 : 2 * ARROW + 1) + long / 2;
  return after ? b + out : a - out;
}

function dimensionLine(
  a: number,
  b: number,
  v: number,
  put: (u: number, v: number) => Vec2,
  isRoomy: boolean,
  inside: boolean,
  after: boolean,
  long: number,
): Segment[] {
  const tail = inside ? 0 : 2 * ARROW;
  const [left, right] = [a - tail - (isRoomy || after ? 0 : long + 1), b + tail + (isRoomy || !after ? 0 : long + 1)];
  return [[put(left, v), put(right, v)]];
}

function textAt(line: ItemLine, u: number, v: number, along: "x" | "y", letter: number, long: number): PlacedText {
  if (along === "x") {
    const at: Vec2 = [u, v + LIFT];
    const box: Box = { min: [u - long / 2, at[1]], max: [u + long / 2, at[1] + letter] };
    return { line, at, anchor: "middle", isTurned: false, box };
  }
  // read from the right: what is above the line then lies at its left
  const at: Vec2 = [v - LIFT, u];
  const box: Box = { min: [at[0] - letter, u - long / 2], max: [at[0], u + long / 2] };
  return { line, at, anchor: "middle", isTurned: true, box };
}

/** So far past the outline a leader's shelf begins, and further steps. */
const BEYOND = 5;
const FURTHER = 5.5;
const LEADERS = 5;

function leader(item: Item, p: Presentation, tip: Tip, scale: number, letter: number): Placed[] {
  const { view } = p;
  const toPaper = paperOf(view, scale);
  const at = toPaper(tip.at),
    size = toPaper(view.box.max);
  const long = Math.max(...item.lines.map((l) => textLength(l.text, letter)));
  const isRight = tip.from[0] >= 0;
  const exit = exitOf(at, tip.from, size);
  return Array.from({ length: LEADERS }, (_, k): Placed => {
    const reach = exit + BEYOND + FURTHER * k;
    const elbow: Vec2 = [at[0] + tip.from[0] * reach, at[1] + tip.from[1] * reach];
    const end: Vec2 = [elbow[0] + (isRight ? 1 : -1) * (long + 1.5), elbow[1]];
    const texts = item.lines.map((line, n): PlacedText => {
      // the first above its shelf, the others below
      const y = n === 0 ? elbow[1] + LIFT : elbow[1] - LIFT - letter - (n - 1) * letter * LINE_PITCH;
      const x = isRight ? elbow[0] + 0.8 : end[0] + 0.8;
      const box: Box = { min: [x, y], max: [x + textLength(line.text, letter), y + letter] };
      return { line, at: [x, y], anchor: "start", isTurned: false, box };
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
      arrows: [{ tip: at, way: [-tip.from[0], -tip.from[1]] }],
      box: joinedBoxes([...texts.map((t) => t.box), boxAround(lines.flat())]),
      own: p.fault + reach * LEADER_COST,
    };
  });
}

/** How far it is from a place to the edge of the view along a direction. */
function exitOf(at: Vec2, way: Vec2, size: Vec2): number {
  const to = ([0, 1] as const).map((i) => {
    if (way[i] === 0) return Infinity;
    return way[i] > 0 ? (size[i] - at[i]) / way[i] : -at[i] / way[i];
  });
  return Math.max(0, Math.min(...to));
}
