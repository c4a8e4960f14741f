import { FLAT } from "../../tolerance";
import { COINCIDENT, ROUNDING } from "@/core/geometry/tolerance";
import { cross2, distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import type { Arc, Constraint, Sketch } from "@/core/sketch/sketch";
import { pointAt, pointsOf } from "@/core/sketch/sketch";
import { headingAt } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { asVec, atSize, centreOf, gap, heading, own, polar } from "./places";
import type { Shape } from "./shape";

const arc = (id: (letter: string) => string, centre: Vec2, start: Vec2, end: Vec2): Arc => ({
  id: id("a"),
  kind: "arc",
  centre: own(centre),
  start: own(start),
  end: own(end),
});

/** Ends first, then a point between them. */
export const threePointArc: Shape = {
  name: "Arc",
  asks: ["click one end", "click the other end", "click a point it passes through"],
  sizes: [[], [gap("chord", 0, 1)]],
  meet: (p, [d]) => (p.length === 2 ? atSize(p[0]!, p[1]!, d, undefined) : p[2]!),
  make([a, b, p], id) {
    const centre = a && b && p ? centreOf(a, b, p) : undefined;
    if (!centre) return undefined;
    // counter-clockwise through the point between
    const ccw = cross2(sub2(p!, a!), sub2(b!, p!)) > 0;
    const c = ccw ? arc(id, centre, a!, b!) : arc(id, centre, b!, a!);
    return {
      curves: [c],
      anchors: ccw ? [`${c.id}.start`, `${c.id}.end`, { on: c.id }] : [`${c.id}.end`, `${c.id}.start`, { on: c.id }],
      sizes: [{ kind: "distance", of: [`${c.id}.start`, `${c.id}.end`] }],
    };
  },
};

/** Centre, start, and how far round. */
export const centreArc: Shape = {
  name: "Arc by its centre",
  asks: ["click its centre", "click where it starts", "click where it ends, counter-clockwise"],
  sizes: [[], [gap("radius", 0, 1)]],
  meet: (p, [d]) => (p.length === 2 ? atSize(p[0]!, p[1]!, d, undefined) : p[2]!),
  make([a, b, p], id) {
    if (!a || !b || !p || distance2(a, b) < COINCIDENT) return undefined;
    const c = arc(id, a, b, polar(a, distance2(a, b), heading(a, p)));
    if (distance2(c.start, c.end) < COINCIDENT) return undefined;
    return {
      curves: [c],
      anchors: [`${c.id}.centre`, `${c.id}.start`, `${c.id}.end`],
      sizes: [{ kind: "radius", of: [c.id] }],
    };
  },
};

/** The end of a curve at a place, and the direction in which it leaves there. */
export function endNear(sketch: Sketch, at: Vec2): { ref: string; curve: string; direction: Vec2 } | undefined {
  for (const c of sketch.curves) {
    const s = segmentOf(c);
    if (!s) continue;
    for (const ref of pointsOf(c)) {
      if (!/\.(start|end)$/.test(ref) || distance2(pointAt(sketch, ref), at) > COINCIDENT) continue;
      const atEnd = ref.endsWith(".end"),
        [h] = headingAt(s, atEnd ? 1 : 0);
      return { ref, curve: c.id, direction: asVec(atEnd ? h : h + Math.PI) };
    }
  }
  return undefined;
}

/** The arc that leaves a place in a direction and ends at another; undefined when they lie in line. */
export function tangentArc(from: Vec2, direction: Vec2, to: Vec2): { centre: Vec2; ccw: boolean } | undefined {
  const w = sub2(to, from),
    n: Vec2 = [-direction[1], direction[0]],
    off = n[0] * w[0] + n[1] * w[1],
    ww = w[0] * w[0] + w[1] * w[1];
  if (Math.abs(off) < FLAT * Math.sqrt(ww) || ww < ROUNDING) return undefined;
  const s = ww / (2 * off);
  return { centre: [from[0] + n[0] * s, from[1] + n[1] * s], ccw: s > 0 };
}

/** From the end of a curve, smoothly, to a place. */
export const smoothArc: Shape = {
  name: "Tangent arc",
  asks: ["click the end of a line or arc", "click where it ends"],
  make([a, b], id, _counts, sketch) {
    const end = a && endNear(sketch, a),
      round = end && b ? tangentArc(a, end.direction, b) : undefined;
    if (!end || !round) return undefined;
    const c = round.ccw ? arc(id, round.centre, a, b!) : arc(id, round.centre, b!, a);
    const [near, far] = round.ccw ? [`${c.id}.start`, `${c.id}.end`] : [`${c.id}.end`, `${c.id}.start`];
    const other = sketch.curves.find((k) => k.id === end.curve)!;
    const of = other.kind === "spline" || other.kind === "ellipse-arc" ? [c.id, end.curve] : [end.curve, c.id];
    const constraints: Constraint[] = [{ id: id("k"), kind: "tangent", of }];
    return { curves: [c], constraints, anchors: [near, far] };
  },
};
