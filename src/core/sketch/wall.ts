import { meetings } from "@/core/geometry/meet";
import {
  around,
  headingAt,
  isWhole,
  reversed,
  segmentAt,
  segmentEnd,
  segmentMotion,
  segmentStart,
  TURN,
  type Segment as Stretch,
} from "@/core/geometry/segment";
import { add2, distance2, dot2, scale2, sub2, type Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Segment } from "./arrangement";
import { segmentOf } from "./curves/registry";
import { chainOf } from "./edit/offset";
import { loopArea, type Outline } from "./regions";
import type { Sketch } from "./sketch";
import { JOIN } from "./tolerance";

/** One end of a wall: which end of which curve, its corners, and the way on from there. */
export interface WallEnd {
  /** Such as `l1.start`. */
  readonly of: string;
  /** Corners on the two sides of the chain, seen along its run. */
  readonly left: Vec2;
  readonly right: Vec2;
  /** Unit vector away from the chain. */
  readonly out: Vec2;
}

/**
 * A wall along an open chain. Its sides are called `CURVE.left` and `CURVE.right`, its ends after the end of the
 * curve.
 */
export interface Wall {
  readonly region: Outline;
  readonly ends: readonly [WallEnd, WallEnd];
}

/** Chains of curves that do not close, each run as its first curve runs. */
export function openChains(
  sketch: Sketch,
): { readonly curve: string; readonly back: boolean; readonly segment: Stretch }[][] {
  const used = new Set<string>(),
    chains: ReturnType<typeof openChains> = [];
  for (const c of sketch.curves) {
    const s = segmentOf(c);
    if (!s || isWhole(s) || c.construction || used.has(c.id)) continue;
    const chain = chainOf(sketch, c.id)
      .filter((k) => !used.has(k.curve.id))
      .map(({ curve, back }) => ({
        curve: curve.id,
        back,
        segment: back ? reversed(segmentOf(curve)!) : segmentOf(curve)!,
      }));
    for (const k of chain) used.add(k.curve);
    const closed =
      chain.length > 1 &&
      distance2(segmentStart(chain[0]!.segment), segmentEnd(chain[chain.length - 1]!.segment)) <= 10 * JOIN;
    if (!closed && chain.length) chains.push(chain);
  }
  return chains;
}

/**
 * Walls along the open chains of a sketch.
 * @param left @param right how far the wall reaches to each side of the run, mm
 */
export function wallsOf(sketch: Sketch, left: number, right: number): Outcome<Wall[]> {
  const walls: Wall[] = [];
  for (const chain of openChains(sketch)) {
    const odd = chain.find(({ segment }) => segment.kind !== "line" && segment.kind !== "arc");
    if (odd)
      return refuse("no-wall", "A wall follows lines and arcs; ellipses and splines cannot carry one yet.", [
        odd.curve,
      ]);
    const a = sideOf(chain, left),
      b = sideOf(chain, -right);
    if (!a.ok) return a;
    if (!b.ok) return b;
    const [first, last] = [chain[0]!, chain[chain.length - 1]!],
      side = (list: readonly Stretch[], name: string) =>
        list.map((s, i): Segment => ({ ...s, curve: `${chain[i]!.curve}.${name}` }));
    const segments = side(a.value, "left"),
      r = side(b.value, "right");
    const startOf = `${first.curve}.${first.back ? "end" : "start"}`,
      endOf = `${last.curve}.${last.back ? "start" : "end"}`;
    const [l0, l1, r0, r1] = [
      segmentStart(segments[0]!),
      segmentEnd(segments[segments.length - 1]!),
      segmentStart(r[0]!),
      segmentEnd(r[r.length - 1]!),
    ];
    const outer: Segment[] = [
      ...r,
      { kind: "line", curve: endOf, a: r1, b: l1 },
      ...segments.map((s) => reversed(s)).reverse(),
      { kind: "line", curve: startOf, a: l0, b: r0 },
    ];
    if (crossesItself(outer))
      return refuse("no-wall", "The wall would run into itself. Make it thinner.", [first.curve]);
    const heading = (s: Stretch, t: number, sign: number): Vec2 => {
      const [h] = headingAt(s, t);
      return [sign * Math.cos(h), sign * Math.sin(h)];
    };
    walls.push({
      region: {
        outer,
        holes: [],
      },
      ends: [
        { of: startOf, left: l0, right: r0, out: heading(first.segment, 0, -1) },
        { of: endOf, left: l1, right: r1, out: heading(last.segment, 1, 1) },
      ],
    });
  }
  return done(walls);
}

/** A chain moved to its left, its corners carried on until they meet. */
function sideOf(chain: ReturnType<typeof openChains>[number], by: number): Outcome<Stretch[]> {
  const list: Stretch[] = [];
  for (const { curve, segment } of chain) {
    const s = aside(segment, by);
    if (!s)
      return refuse("no-wall", "The wall is too thick for this arc: it would shrink to nothing. Make it thinner.", [
        curve,
      ]);
    list.push(s);
  }
  for (let i = 0; i + 1 < list.length; i++) {
    const corner = segmentEnd(chain[i]!.segment),
      at = cornerOf(list[i]!, list[i + 1]!, corner);
    if (!at)
      return refuse(
        "no-wall",
        "The sides of the wall do not meet at this corner. Make it thinner, or round the corner.",
        [chain[i]!.curve, chain[i + 1]!.curve],
      );
    list[i] = ended(list[i]!, at);
    list[i + 1] = reversed(ended(reversed(list[i + 1]!), at));
  }
  // a stretch that was eaten up by its corners now runs backwards
  const eaten = list.findIndex((s, i) => {
    const [was] = segmentMotion(chain[i]!.segment, 0.5),
      [is] = segmentMotion(s, 0.5);
    return dot2(was, is) <= 0;
  });
  return eaten < 0
    ? done(list)
    : refuse("no-wall", "The wall is too thick for this stretch of the outline. Make it thinner.", [
        chain[eaten]!.curve,
      ]);
}

function aside(s: Stretch, by: number): Stretch | undefined {
  if (s.kind === "line") {
    const d = sub2(s.b, s.a),
      n = scale2([-d[1], d[0]], by / Math.hypot(...d));
    return { ...s, a: add2(s.a, n), b: add2(s.b, n) };
  }
  if (s.kind !== "arc") return undefined;
  // the left of a counter-clockwise arc is inside
  const radius = s.radius - by * Math.sign(s.sweep);
  return radius > JOIN ? { ...s, radius } : undefined;
}

/** Where two stretches meet when both are carried on, nearest to a corner. */
function cornerOf(a: Stretch, b: Stretch, corner: Vec2): Vec2 | undefined {
  if (distance2(segmentEnd(a), segmentStart(b)) <= JOIN) return segmentEnd(a);
  const places = meetings(carriedOn(a, corner), carriedOn(b, corner), JOIN).map((m) => m.at);
  return places.sort((p, q) => distance2(p, corner) - distance2(q, corner))[0];
}

/** The whole circle of an arc; of a line, enough to reach any corner worth having. */
function carriedOn(s: Stretch, near: Vec2): Stretch {
  if (s.kind === "arc") return { ...s, sweep: TURN };
  const u = segmentMotion(s, 0)[0],
    l = Math.hypot(...u),
    reach = 100 * (distance2(segmentAt(s, 0.5), near) + l);
  return { kind: "line", a: sub2(segmentStart(s), scale2(u, reach / l)), b: add2(segmentEnd(s), scale2(u, reach / l)) };
}

/** The stretch with another end on its carrier. */
function ended(s: Stretch, at: Vec2): Stretch {
  if (s.kind === "line") return { ...s, b: at };
  if (s.kind !== "arc") return s;
  const to = Math.atan2(at[1] - s.centre[1], at[0] - s.centre[0]),
    turn = s.sweep < 0 ? -around(s.from - to) : around(to - s.from);
  // the nearer of the two ways round
  const other = turn - Math.sign(s.sweep) * TURN;
  return { ...s, sweep: Math.abs(turn - s.sweep) <= Math.abs(other - s.sweep) ? turn : other };
}

function crossesItself(loop: readonly Stretch[]): boolean {
  return loop.some((s, i) =>
    loop.some((o, j) => {
      if (j <= i) return false;
      const joined = [segmentStart(s), segmentEnd(s)].filter((p) =>
        [segmentStart(o), segmentEnd(o)].some((q) => distance2(p, q) <= 10 * JOIN),
      );
      return meetings(s, o, JOIN).some((m) => !joined.some((p) => distance2(p, m.at) <= 10 * JOIN));
    }),
  );
}

/** A strip on from an end of a wall, as wide as the wall. Its near and far sides are called so. */
export function stripOn(
  end: WallEnd,
  curve: { readonly left: string; readonly right: string },
  length: number,
): Outline {
  const on = (p: Vec2) => add2(p, scale2(end.out, length)),
    { left, right } = end;
  const corners: [Vec2, string][] = [
    [right, curve.right],
    [on(right), "far"],
    [on(left), curve.left],
    [left, "near"],
  ];
  const outer = corners.map(([a, name], i): Segment => ({ kind: "line", curve: name, a, b: corners[(i + 1) % 4]![0] }));
  // at the start of a chain its left is on the other hand
  const loop = loopArea(outer) > 0 ? outer : outer.map((s) => reversed(s)).reverse();
  return { outer: loop, holes: [] };
}
