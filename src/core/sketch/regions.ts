import { SAME_WAY } from "@/core/geometry/tolerance";
import { headingAt, segmentMiddle, sweptArea } from "@/core/geometry/segment";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { segmentBox } from "@/core/geometry/segment";
import { reversed, sampled, segmentEnd, segmentStart, splitAtMeetings, type Segment } from "./arrangement";
import { formatRegion, parseRegion, type Side } from "@/core/naming/names";
import type { Sketch } from "./sketch";
import { JOIN } from "./tolerance";

/** A closed outline: outer boundary counter-clockwise, holes clockwise. */
export interface Outline {
  readonly outer: readonly Segment[];
  readonly holes: readonly (readonly Segment[])[];
}

/** What curves of a sketch close. */
export interface Region extends Outline {
  /** Its curves; where others share them, its sides too. Steps that keep `identity` never change over to another. */
  readonly name: string;
  /** Its curves and on which side of each it lies, always. */
  readonly identity: string;
  /** 0 outside all others; a region inside a hole of another is one deeper. */
  readonly depth: number;
  /** mm², holes taken off. */
  readonly area: number;
}

/** An end that meets nothing, and the nearest other end it might have been meant to meet. */
export interface Gap {
  readonly curve: string;
  readonly at: Vec2;
  readonly nearest?: { readonly curve: string; readonly at: Vec2; readonly distance: number };
}

/** Two curves that run along each other for a stretch. */
interface Overlap {
  readonly curves: readonly [string, string];
  readonly at: Vec2;
}

export interface Regions {
  readonly regions: readonly Region[];
  readonly gaps: readonly Gap[];
  readonly overlaps: readonly Overlap[];
}

interface Half {
  readonly segment: Segment;
  readonly from: number;
  readonly to: number;
  /** Whether it runs the way its curve does. */
  readonly forward: boolean;
  /** Its place among the pieces of its curve. */
  readonly order: number;
  /** Of a curve without ends. */
  readonly closed: boolean;
  twin: Half;
  next?: Half;
  seen?: boolean;
}

/** Signed area under a loop by Green's theorem, exact for every kind of segment. */
export const loopArea = (loop: readonly Segment[]): number => loop.reduce((sum, s) => sum + sweptArea(s), 0);

/** Lowest and highest corner of the box around a loop. */
function loopBox(loop: readonly Segment[]): [Vec2, Vec2] {
  const corners = loop.flatMap(segmentBox);
  const [xs, ys] = [corners.map((p) => p[0]), corners.map((p) => p[1])];
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}

/** Whether a point lies inside a loop (even-odd over a fine polygon). */
export function isInside(loop: readonly Segment[], p: Vec2): boolean {
  const polygon = loop.flatMap((s) => sampled(s));
  let inside = false;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const a = polygon[i]!,
      b = polygon[j]!;
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < ((b[0] - a[0]) * (p[1] - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside;
  }
  return inside;
}

/** Finds the closed regions of a solved sketch, with holes and nesting, and the ends that leave it open. */
export function findRegions(sketch: Sketch): Regions {
  const { halves: drawn, vertices, overlaps } = halvesOf(sketch);
  const { halves, gaps } = withoutDangling(drawn, vertices);
  const { faces, rims } = walked(halves);
  const area = new Map(faces.map((f) => [f, loopArea(f.loop)]));
  const parent = hungIn(faces, rims, area);
  const depth = (c: number): number => (parent.get(c) ? depth(parent.get(c)!.component) + 1 : 0);
  const found = faces.map((f) => {
    const holes = rims.filter((r) => parent.get(r.component) === f).map((r) => r.loop);
    const whole = area.get(f)! + holes.reduce((sum, h) => sum + loopArea(h), 0);
    return { region: { outer: f.loop, holes, depth: depth(f.component), area: whole }, loop: f.halves };
  });
  const gapsTold = gaps.map((g) => ({ ...g, ...nearestOther(g, gaps) }));
  return { regions: withNames(found), overlaps, gaps: gapsTold };
}

/** Numbers places: those that lie together have one number. */
class Vertices {
  readonly places: Vec2[] = [];
  private readonly grid = new Map<string, number[]>();

  of(p: Vec2): number {
    const cell = JOIN * 4;
    const gx = Math.floor(p[0] / cell),
      gy = Math.floor(p[1] / cell);
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const v of this.grid.get(`${gx + i},${gy + j}`) ?? []) if (distance2(this.places[v]!, p) <= JOIN) return v;
    const made = this.places.push(p) - 1,
      key = `${gx},${gy}`;
    this.grid.set(key, [...(this.grid.get(key) ?? []), made]);
    return made;
  }
}

/** Every stretch between meetings, once in each direction; a stretch drawn twice counts once and is told. */
function halvesOf(sketch: Sketch): { halves: Half[]; vertices: readonly Vec2[]; overlaps: Overlap[] } {
  const segments = splitAtMeetings(sketch.curves.filter((c) => !c.construction));
  const vertices = new Vertices();
  const halves: Half[] = [],
    overlaps: Overlap[] = [];
  const known = new Map<string, { middle: Vec2; curve: string }[]>();
  const closed = new Set(sketch.curves.filter((c) => c.kind === "circle" || c.kind === "ellipse").map((c) => c.id));
  for (const [order, segment] of segments.entries()) {
    const from = vertices.of(segmentStart(segment)),
      to = vertices.of(segmentEnd(segment));
    if (segment.kind === "line" && from === to) continue;
    const middle = segmentMiddle(segment),
      key = `${Math.min(from, to)}-${Math.max(from, to)}`;
    const twins = known.get(key) ?? [];
    const twin = twins.find((t) => distance2(t.middle, middle) <= 4 * JOIN);
    if (twin) {
      overlaps.push({ curves: [twin.curve, segment.curve], at: middle });
      continue;
    }
    known.set(key, [...twins, { middle, curve: segment.curve }]);
    const shared = { order, closed: closed.has(segment.curve) };
    const there = { ...shared, segment, from, to, forward: true } as Half,
      back = { ...shared, segment: reversed(segment), from: to, to: from, forward: false } as Half;
    there.twin = back;
    back.twin = there;
    halves.push(there, back);
  }
  return { halves, vertices: vertices.places, overlaps };
}

/** Takes off dangling ends until only closed chains are left; the first of them are told as gaps. */
function withoutDangling(drawn: readonly Half[], vertices: readonly Vec2[]): { halves: Half[]; gaps: Gap[] } {
  let halves = [...drawn];
  const gaps: Gap[] = [];
  for (;;) {
    const degree = new Map<number, number>();
    for (const h of halves) degree.set(h.from, (degree.get(h.from) ?? 0) + 1);
    const loose = halves.filter((h) => degree.get(h.from) === 1);
    if (!loose.length) return { halves, gaps };
    if (!gaps.length) gaps.push(...loose.map((h) => ({ curve: h.segment.curve, at: vertices[h.from]! })));
    const dead = new Set(loose.flatMap((h) => [h, h.twin]));
    halves = halves.filter((h) => !dead.has(h));
  }
}

/** A closed walk along half edges, and which connected drawing it belongs to. */
interface Walk {
  readonly loop: Segment[];
  readonly halves: Half[];
  readonly component: number;
}

/** Every face at the left of half edges, and the rims around connected drawings. */
function walked(halves: readonly Half[]): { faces: Walk[]; rims: Walk[] } {
  const out = new Map<number, Half[]>();
  for (const h of halves) out.set(h.from, [...(out.get(h.from) ?? []), h]);
  joinFans(halves, out);
  const component = componentsOf(out);
  const faces: Walk[] = [],
    rims: Walk[] = [];
  for (const h of halves) {
    if (h.seen) continue;
    const around: Half[] = [];
    for (let e: Half = h; !e.seen; e = e.next!) {
      e.seen = true;
      around.push(e);
    }
    const loop = around.map((e) => e.segment);
    (loopArea(loop) > 0 ? faces : rims).push({ loop, halves: around, component: component.get(h.from)! });
  }
  return { faces, rims };
}

/** The face at the left of an incoming half edge goes on with the one before its twin, clockwise. */
function joinFans(halves: readonly Half[], out: ReadonlyMap<number, Half[]>): void {
  const heading = new Map(halves.map((h) => [h, headingAt(h.segment, 0)]));
  for (const fan of out.values()) {
    fan.sort((a, b) => {
      const [ta, ca] = heading.get(a)!,
        [tb, cb] = heading.get(b)!;
      return Math.abs(ta - tb) > SAME_WAY ? ta - tb : ca - cb;
    });
    fan.forEach((h, i) => (h.twin.next = fan[(i + fan.length - 1) % fan.length]!));
  }
}

/** Which connected drawing each vertex belongs to. */
function componentsOf(out: ReadonlyMap<number, readonly Half[]>): ReadonlyMap<number, number> {
  const component = new Map<number, number>();
  let count = 0;
  for (const first of out.keys()) {
    if (component.has(first)) continue;
    const stack = [first];
    while (stack.length) {
      const vertex = stack.pop()!;
      if (component.has(vertex)) continue;
      component.set(vertex, count);
      for (const h of out.get(vertex) ?? []) stack.push(h.to);
    }
    count++;
  }
  return component;
}

/** Each connected drawing hangs in the smallest face of another that contains it. */
function hungIn(
  faces: readonly Walk[],
  rims: readonly Walk[],
  area: ReadonlyMap<Walk, number>,
): ReadonlyMap<number, Walk | undefined> {
  const boxes = new Map(faces.map((f) => [f, loopBox(f.loop)]));
  // sampling an outline is dear; of many thousand pairs nearly all are told apart by their boxes
  const isNear = (face: Walk, [x, y]: Vec2) => {
    const [low, high] = boxes.get(face)!;
    return low[0] <= x && x <= high[0] && low[1] <= y && y <= high[1];
  };
  const parent = new Map<number, Walk | undefined>();
  for (const rim of rims) {
    const at = segmentStart(rim.loop[0]!),
      own = -loopArea(rim.loop);
    const around = faces.filter(
      (f) => f.component !== rim.component && area.get(f)! > own && isNear(f, at) && isInside(f.loop, at),
    );
    parent.set(rim.component, around.sort((a, b) => area.get(a)! - area.get(b)!)[0]);
  }
  return parent;
}

/** Names regions by their curves and sides, and sorts them by name. */
function withNames(list: readonly { region: Omit<Region, "name" | "identity">; loop: readonly Half[] }[]): Region[] {
  const named = list.map(({ region, loop }) => ({ region, ...sidesOf(loop) }));
  /** Those that share a key, in the order in which they begin along their first curve. */
  const alike = (keyOf: (n: (typeof named)[number]) => string) => {
    const groups = new Map<string, (typeof named)[number][]>();
    for (const n of named) groups.set(keyOf(n), [...(groups.get(keyOf(n)) ?? []), n]);
    for (const group of groups.values()) group.sort((a, b) => a.from - b.from);
    return new Map(named.map((n) => [n, groups.get(keyOf(n)) ?? []]));
  };
  const outlines = alike((n) => formatRegion({ curves: n.curves }));
  const twins = alike((n) => `${n.sides} ${formatRegion({ curves: n.curves })}`);
  const regions = named.map((n): Region => {
    const group = twins.get(n)!;
    const place = group.length > 1 ? { nth: group.indexOf(n) + 1, of: group.length } : undefined;
    const identity = formatRegion({ curves: n.curves, sides: n.sides, ...(place && { place }) });
    const isAlone = outlines.get(n)!.length === 1;
    return { ...n.region, identity, name: isAlone ? formatRegion({ curves: n.curves }) : identity };
  });
  return regions.sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** The curves of an outline, sorted; the side of each on which the inside lies; where along one of them it begins. */
function sidesOf(loop: readonly Half[]): { curves: string[]; sides: string; from: number } {
  const curves = [...new Set(loop.map((h) => h.segment.curve))].sort();
  const sides = curves.map((curve): Side => {
    const runs = loop.filter((h) => h.segment.curve === curve);
    if (runs.every((h) => h.forward)) return "l";
    return runs.some((h) => h.forward) ? "b" : "r";
  });
  // an open curve has a first place; a closed one only where it happens to begin
  const open = loop.filter((h) => !h.closed);
  const along = open.length ? open : loop;
  const first = along.map((h) => h.segment.curve).sort()[0];
  const from = Math.min(...along.filter((h) => h.segment.curve === first).map((h) => h.order));
  return { curves, sides: sides.join(""), from };
}

/** The region a name means: by its curves, and by its sides where they are told. Undefined where that is not clear. */
export function regionOf(regions: readonly Region[], name: string): Region | undefined {
  const exact = regions.find((r) => r.name === name || r.identity === name);
  if (exact || parseRegion(name).sides !== undefined) return exact;
  const { curves } = parseRegion(name);
  const alike = regions.filter(
    (r) => formatRegion({ curves: parseRegion(r.identity).curves }) === formatRegion({ curves }),
  );
  return alike.length === 1 ? alike[0] : undefined;
}

function nearestOther(gap: Gap, gaps: readonly Gap[]): Pick<Gap, "nearest"> {
  const others = gaps
    .filter((g) => g !== gap)
    .map((g) => ({ curve: g.curve, at: g.at, distance: distance2(g.at, gap.at) }));
  others.sort((a, b) => a.distance - b.distance);
  return others[0] ? { nearest: others[0] } : {};
}

/** What a step takes when it names no regions: all that are not inside a hole. */
export const defaultRegions = (r: Regions): Region[] => r.regions.filter((x) => x.depth % 2 === 0);
