import { candidates, kept } from "./candidates";
import type { Item } from "./items";
import type { Place } from "../layout/layout";
import { strokeSegments } from "../views/obstacles";
import { paperOf, type Placed } from "./placed";
import { NEXT } from "./straight";
import { cross, grown, meetsBox, overlap, type Segment } from "../plane";
import type { View } from "../views/views";

/** What is wrong with an arrangement, heaviest first. */
const COST = {
  textOnText: 1000,
  sameLine: 800,
  textOnLine: 500,
  textOnOutline: 400,
  textOnCentre: 60,
  linesCross: 150,
  leadersCross: 120,
  lineOverExtension: 60,
  longerInside: 40,
  leaderOverExtension: 100,
  arcOverOutline: 8,
  leaderOverOutline: 4,
  extensionsCross: 1,
} as const;

/** What costs so much cannot be read. */
export const UNREADABLE = COST.textOnLine;

/** What stands in the way in a view: its lines, and its centre lines; paper mm. */
interface Ground {
  readonly outline: readonly Segment[];
  readonly centres: readonly Segment[];
}

/**
 * Places every item: greedily, the shortest first, then one after the other is tried elsewhere as long as the whole
 * gets better. The order of trials is fixed, so that the same part is always drawn alike.
 * @param scale of the views @param letter height of capitals, mm @param centres centre lines of a view, paper mm
 * @param fixed what stands in a view already
 * @param places where somebody has put items, by the id of their first line: they stay there
 */
export function arrange(
  items: readonly Item[],
  scale: number,
  letter: number,
  centres: (view: View) => readonly Segment[],
  fixed: (view: View) => readonly Placed[] = () => [],
  places: Readonly<Record<string, Place>> = {},
): Placed[] {
  const grounds = new Map<View, Ground>();
  const groundOf = (view: View): Ground => {
    let ground = grounds.get(view);
    if (!ground) {
      const toPaper = paperOf(view, view.scale ?? scale);
      const outline = view.strokes
        .filter((s) => !s.tangent)
        .flatMap((s) => strokeSegments(s).map(([a, b]): Segment => [toPaper(a), toPaper(b)]));
      grounds.set(view, (ground = { outline, centres: centres(view) }));
    }
    return ground;
  };
  const options = items.map((item) => {
    const place = places[item.lines[0]!.id],
      own = place && kept(item, place, scale, letter);
    return own ? [own] : candidates(item, scale, letter);
  });
  const base = options.map((list) =>
    list.map((c) => {
      const stands = fixed(c.view).reduce((s, f) => s + between(c, f), 0);
      return c.own + againstGround(c, groundOf(c.view)) + stands;
    }),
  );
  const order = items.map((_, i) => i).sort((a, b) => spanOf(options[a]![0]) - spanOf(options[b]![0]) || a - b);
  const chosen: (Placed | undefined)[] = items.map(() => undefined);
  const costOf = (i: number, k: number): number => {
    const c = options[i]![k]!;
    let sum = base[i]![k]!;
    chosen.forEach((o, j) => {
      if (o && j !== i && o.view === c.view) sum += between(c, o);
    });
    return sum;
  };
  const settle = (i: number): boolean => {
    const list = options[i]!;
    let best = -1,
      least = Infinity;
    for (let k = 0; k < list.length; k++) {
      // what is dear by itself cannot get cheaper
      if (base[i]![k]! >= least) continue;
      const cost = costOf(i, k);
      if (cost < least) [best, least] = [k, cost];
    }
    const next = list[best];
    if (!next || next === chosen[i]) return false;
    chosen[i] = next;
    return true;
  };
  for (const i of order) settle(i);
  for (let round = 0; round < ROUNDS; round++) {
    let isMoved = false;
    for (const i of order) if (settle(i)) isMoved = true;
    if (!isMoved) break;
  }
  return chosen.filter((c) => c !== undefined);
}
const ROUNDS = 5;

const spanOf = (p: Placed | undefined): number => {
  if (!p) return 0;
  return p.tier ? p.tier.to - p.tier.from : 1_000 + p.box.max[0];
};

function againstGround(c: Placed, { outline, centres }: Ground): number {
  let sum = 0;
  for (const t of c.texts) {
    const box = grown(t.box, 0.4);
    if (outline.some((s) => meetsBox(s, box))) sum += COST.textOnOutline;
    if (centres.some((s) => meetsBox(s, box))) sum += COST.textOnCentre;
  }
  if (c.arc) {
    const crossed = c.lines.reduce((n, l) => n + outline.filter((s) => cross(l, s)).length, 0);
    sum += crossed * COST.arcOverOutline;
  } else if (!c.tier && c.lines[0]) {
    const [leader] = c.lines;
    const crossed = outline.filter((s) => cross(leader, s)).length;
    sum += Math.max(0, crossed) * COST.leaderOverOutline;
  }
  return sum;
}

/** What two things in one view do to each other. */
export function between(p: Placed, q: Placed): number {
  if (!overlap(grown(p.box, 1), grown(q.box, 1))) return tiersBetween(p, q);
  let sum = tiersBetween(p, q);
  for (const a of p.texts) for (const b of q.texts) if (overlap(grown(a.box, 0.5), b.box)) sum += COST.textOnText;
  for (const [one, other] of [
    [p, q],
    [q, p],
  ] as const)
    for (const t of one.texts) {
      const box = grown(t.box, 0.3);
      if ([...other.lines, ...other.extensions].some((s) => meetsBox(s, box))) sum += COST.textOnLine;
    }
  const count = (a: readonly Segment[], b: readonly Segment[]) =>
    a.reduce((n, s) => n + b.filter((t) => cross(s, t)).length, 0);
  const both = p.tier && q.tier ? COST.linesCross : p.tier || q.tier ? COST.lineOverExtension : COST.leadersCross;
  sum += count(p.lines, q.lines) * both;
  const over = (x: Placed) => (x.tier ? COST.lineOverExtension : COST.leaderOverExtension);
  sum += count(p.lines, q.extensions) * over(p) + count(q.lines, p.extensions) * over(q);
  return sum + count(p.extensions, q.extensions) * COST.extensionsCross;
}

function tiersBetween({ tier: p }: Placed, { tier: q }: Placed): number {
  if (!p || !q || p.side !== q.side || p.from >= q.to || q.from >= p.to) return 0;
  if (Math.abs(p.offset - q.offset) < NEXT - 1) return COST.sameLine;
  const [inner, outer] = p.offset < q.offset ? [p, q] : [q, p];
  return inner.to - inner.from > outer.to - outer.from + 1 ? COST.longerInside : 0;
}
