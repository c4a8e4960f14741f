import { headingAt, segmentMiddle, sweptArea } from "@/core/geometry/segment";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { reversed, sampled, segmentEnd, segmentStart, splitAtMeetings, type Segment } from "./arrangement";
import type { Sketch } from "./sketch";
import { JOIN } from "./tolerance";

/** A closed region: outer boundary counter-clockwise, holes clockwise. */
export interface Region {
  /** The curves of its outer boundary, sorted and joined with +; "#2" and so on follow where that is not enough. */
  readonly name: string;
  readonly outer: readonly Segment[];
  readonly holes: readonly (readonly Segment[])[];
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
export interface Overlap {
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
  twin: Half;
  next?: Half;
  seen?: boolean;
}

/** Signed area under a loop by Green's theorem, exact for every kind of segment. */
export const loopArea = (loop: readonly Segment[]): number => loop.reduce((sum, s) => sum + sweptArea(s), 0);

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
  const segments = splitAtMeetings(sketch.curves.filter((c) => !c.construction));
  const vertices: Vec2[] = [];
  const grid = new Map<string, number[]>();
  const cell = JOIN * 4;
  const vertex = (p: Vec2): number => {
    const gx = Math.floor(p[0] / cell),
      gy = Math.floor(p[1] / cell);
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const v of grid.get(`${gx + i},${gy + j}`) ?? []) if (distance2(vertices[v]!, p) <= JOIN) return v;
    const v = vertices.push(p) - 1;
    const key = `${gx},${gy}`;
    grid.set(key, [...(grid.get(key) ?? []), v]);
    return v;
  };
  let halves: Half[] = [];
  const known = new Map<string, { middle: Vec2; curve: string }[]>();
  const overlaps: Overlap[] = [];
  for (const segment of segments) {
    const from = vertex(segmentStart(segment)),
      to = vertex(segmentEnd(segment));
    if (segment.kind === "line" && from === to) continue;
    // a stretch drawn twice counts once
    const middle = segmentMiddle(segment),
      key = `${Math.min(from, to)}-${Math.max(from, to)}`;
    const twins = known.get(key) ?? [];
    const twin = twins.find((t) => distance2(t.middle, middle) <= 4 * JOIN);
    if (twin) {
      overlaps.push({ curves: [twin.curve, segment.curve], at: middle });
      continue;
    }
    known.set(key, [...twins, { middle, curve: segment.curve }]);
    const a = { segment, from, to } as Half,
      b = { segment: reversed(segment), from: to, to: from } as Half;
    a.twin = b;
    b.twin = a;
    halves.push(a, b);
  }
  // take off dangling ends until only closed chains are left
  const gaps: Gap[] = [];
  for (;;) {
    const degree = new Map<number, number>();
    for (const h of halves) degree.set(h.from, (degree.get(h.from) ?? 0) + 1);
    const dead = new Set(halves.filter((h) => degree.get(h.from) === 1).flatMap((h) => [h, h.twin]));
    if (!dead.size) break;
    if (!gaps.length)
      for (const h of halves)
        if (degree.get(h.from) === 1) gaps.push({ curve: h.segment.curve, at: vertices[h.from]! });
    halves = halves.filter((h) => !dead.has(h));
  }

  const out = new Map<number, Half[]>();
  for (const h of halves) out.set(h.from, [...(out.get(h.from) ?? []), h]);
  const heading = new Map(halves.map((h) => [h, headingAt(h.segment, 0)]));
  for (const fan of out.values()) {
    fan.sort((a, b) => {
      const [ta, ca] = heading.get(a)!,
        [tb, cb] = heading.get(b)!;
      return Math.abs(ta - tb) > 1e-9 ? ta - tb : ca - cb;
    });
    // the face at the left of an incoming half edge goes on with the one before its twin, clockwise
    fan.forEach((h, i) => (h.twin.next = fan[(i + fan.length - 1) % fan.length]!));
  }
  const faces: { loop: Segment[]; component: number }[] = [];
  const rims: { loop: Segment[]; component: number }[] = [];
  const component = new Map<number, number>();
  const mark = (v: number, c: number) => {
    const stack = [v];
    while (stack.length) {
      const u = stack.pop()!;
      if (component.has(u)) continue;
      component.set(u, c);
      for (const h of out.get(u) ?? []) stack.push(h.to);
    }
  };
  let components = 0;
  for (const v of out.keys()) if (!component.has(v)) mark(v, components++);
  for (const h of halves) {
    if (h.seen) continue;
    const loop: Segment[] = [];
    for (let e: Half = h; !e.seen; e = e.next!) {
      e.seen = true;
      loop.push(e.segment);
    }
    (loopArea(loop) > 0 ? faces : rims).push({ loop, component: component.get(h.from)! });
  }
  // each component hangs in the smallest face of another that contains it
  const area = new Map(faces.map((f) => [f, loopArea(f.loop)]));
  const parent = new Map<number, (typeof faces)[number] | undefined>();
  for (const rim of rims) {
    const p = segmentStart(rim.loop[0]!);
    const around = faces.filter(
      (f) => f.component !== rim.component && area.get(f)! > -loopArea(rim.loop) && isInside(f.loop, p),
    );
    parent.set(rim.component, around.sort((a, b) => area.get(a)! - area.get(b)!)[0]);
  }
  const depth = (c: number): number => (parent.get(c) ? depth(parent.get(c)!.component) + 1 : 0);
  const regions = faces.map((f) => {
    const holes = rims.filter((r) => parent.get(r.component) === f).map((r) => r.loop);
    return {
      name: [...new Set(f.loop.map((s) => s.curve))].sort().join("+"),
      outer: f.loop,
      holes,
      depth: depth(f.component),
      area: area.get(f)! + holes.reduce((sum, h) => sum + loopArea(h), 0),
    };
  });
  regions.sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0) || b.area - a.area);
  const used = new Map<string, number>();
  const named = regions.map((r) => {
    const n = (used.get(r.name) ?? 0) + 1;
    used.set(r.name, n);
    return n === 1 ? r : { ...r, name: `${r.name}#${n}` };
  });
  return { regions: named, overlaps, gaps: gaps.map((g) => ({ ...g, ...nearestOther(g, gaps) })) };
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
