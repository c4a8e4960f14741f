import { add2, cross2, dot2, scale2, sub2, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { footOn } from "@/core/geometry/line";
import { isParallel, isSquare, leaningOf, lineOf, supportAt, wayOf, type Anchor } from "@/core/sizes/anchor";
import { measureSize, type SizeOf } from "@/core/sizes/size";
import { seenWay } from "../views/direction";
import type { SheetModel } from "../views/model";
import { FAULT, type Leg, type Presentation } from "./presentation";
import { seenPoints } from "../views/seen";
import { ALONG_VIEW, LEVEL, NEAR, SAME_ANGLE } from "../tolerance";
import { project, type View } from "../views/views";

type Angular = SizeOf<"angle"> | SizeOf<"turn"> | SizeOf<"cone"> | SizeOf<"arc">;
const TURN = 2 * Math.PI;

/** An angle as an arc between its legs, in a view that shows both in their true direction. */
export function angularOf(model: SheetModel, size: Angular, view: View): Presentation[] {
  switch (size.kind) {
    case "angle":
      return between(model, size, view);
    case "turn":
      return roundAbout(model, size, view);
    case "cone":
      return ofCone(model, size, view);
    case "arc":
      return alongArc(model, size, view);
  }
}

interface DrawnLine {
  readonly at: Vec2;
  readonly along: Vec2;
  readonly isEllipse?: boolean;
}

/** A flat face seen edge on, or an axis that lies in the view. */
function drawnLine(model: SheetModel, anchor: Anchor, view: View): DrawnLine | undefined {
  const support = supportAt(anchor, model.body.on),
    way = leaningOf(support);
  if (!support || !way) return undefined;
  const seen = seenWay(view.gaze, way);
  if (Math.hypot(...seen) < ALONG_VIEW) return undefined;
  if (!("plane" in support))
    return { at: project(view, lineOf(support)!.at), along: seen, isEllipse: "long" in support };
  return { at: scale2(seen, support.plane.offset), along: [-seen[1], seen[0]] };
}

function meeting(a: DrawnLine, b: DrawnLine): Vec2 | undefined {
  const det = cross2(a.along, b.along);
  if (Math.abs(det) < LEVEL) return undefined;
  return add2(a.at, scale2(a.along, cross2(sub2(b.at, a.at), b.along) / det));
}

/** From where to where the points of a thing lie along a leg, before its foot left out. */
function reachAlong(points: readonly Vec2[], vertex: Vec2, way: Vec2): readonly [number, number] {
  const at = points.map((p) => dot2(sub2(p, vertex), way)).filter((v) => v > -NEAR);
  return at.length ? [Math.max(0, Math.min(...at)), Math.max(...at)] : [0, 0];
}

/** From leg to leg counter-clockwise, less than half a turn. */
function ordered(a: Leg, b: Leg): readonly [Leg, Leg] {
  const turn = (((b.angle - a.angle) % TURN) + TURN) % TURN;
  return turn <= Math.PI ? [a, { ...b, angle: a.angle + turn }] : [b, { ...a, angle: b.angle + TURN - turn }];
}

const angleOf = (d: Vec2): number => Math.atan2(d[1], d[0]);

function between(model: SheetModel, size: SizeOf<"angle">, view: View): Presentation[] {
  const value = measureSize(size, model.body.on)[0]?.[0]?.value;
  const [p, q] = [drawnLine(model, size.from, view), drawnLine(model, size.to, view)];
  // how an ellipse is turned is told at its middle
  const [own] = [q, p].filter((line) => line?.isEllipse);
  const vertex = p && q && (own?.at ?? meeting(p, q));
  if (!p || !q || !vertex || value === undefined) return [];
  const pointsOf = (anchor: Anchor) => seenPoints(model, anchor[0]!, view),
    both = own && pointsOf(own === p ? size.from : size.to);
  const [first, second] = [both ?? pointsOf(size.from), both ?? pointsOf(size.to)] as const;
  const ways = [1, -1].flatMap((s) => [1, -1].map((t) => [scale2(p.along, s), scale2(q.along, t)] as const));
  const ahead = (points: readonly Vec2[], way: Vec2) => points.filter((x) => dot2(sub2(x, vertex), way) > 0).length;
  const best = ways
    .filter(([u, w]) => Math.abs(Math.acos(Math.max(-1, Math.min(1, dot2(u, w)))) - value) < SAME_ANGLE)
    .map(([u, w]) => ({ u, w, seen: ahead(first.points, u) + ahead(second.points, w) }))
    .sort((a, b) => b.seen - a.seen)[0];
  if (!best) return [];
  const leg = (way: Vec2, points: readonly Vec2[]): Leg => ({
    angle: angleOf(way),
    reach: reachAlong(points, vertex, way),
  });
  const fault = first.isSeen && second.isSeen ? 0 : FAULT.hidden;
  return [
    { view, fault, form: "angular", vertex, legs: ordered(leg(best.u, first.points), leg(best.w, second.points)) },
  ];
}

function roundAbout(model: SheetModel, size: SizeOf<"turn">, view: View): Presentation[] {
  const { on } = model.body;
  const axis = lineOf(supportAt([size.about], on));
  if (!axis || !isParallel(axis.along, view.gaze.toViewer)) return [];
  const vertex = project(view, axis.at);
  const legs = [size.from, size.to].flatMap((face): Leg[] => {
    const s = supportAt([face], on),
      line = lineOf(s);
    const way: Vec3 | undefined = line ? undefined : wayOf(s);
    const to = line
      ? sub2(project(view, line.at), project(view, footOn(line.at, axis)))
      : way && seenWay(view.gaze, way);
    const l = to ? Math.hypot(...to) : 0;
    if (!to || l < NEAR) return [];
    const unit = scale2(to, 1 / l);
    // to the middle of what is round, to the face of what is flat
    const reach = line ? ([l, l] as const) : reachAlong(seenPoints(model, face, view).points, vertex, unit);
    return [{ angle: angleOf(unit), reach }];
  });
  const [a, b] = legs;
  return a && b ? [{ view, fault: 0, form: "angular", vertex, legs: ordered(a, b) }] : [];
}

function ofCone(model: SheetModel, size: SizeOf<"cone">, view: View): Presentation[] {
  return size.of.slice(0, MOST_CONES).flatMap((face): Presentation[] => {
    const c = model.body.on(face),
      axis = c && axisOf(c);
    if (c?.kind !== "cone" || !axis || !isSquare(axis.along, view.gaze.toViewer)) return [];
    const { points, isSeen } = seenPoints(model, face, view);
    if (!points.length) return [];
    const vertex = project(view, c.tip);
    const middle = scale2(points.reduce<Vec2>(add2, [0, 0]), 1 / points.length);
    const seen = seenWay(view.gaze, axis.along),
      base = angleOf(dot2(sub2(middle, vertex), seen) < 0 ? scale2(seen, -1) : seen);
    const leg = (angle: number): Leg => {
      const way: Vec2 = [Math.cos(angle), Math.sin(angle)];
      // only what lies on this outline
      const own = points.filter((p) => Math.abs(cross2(way, sub2(p, vertex))) < NEAR * Math.max(1, model.body.size));
      return { angle, reach: reachAlong(own.length ? own : points, vertex, way) };
    };
    const legs = size.half ? [leg(base), leg(base + c.half)] : [leg(base - c.half), leg(base + c.half)];
    return [{ view, fault: isSeen ? 0 : FAULT.hidden, form: "angular", vertex, legs: ordered(legs[0]!, legs[1]!) }];
  });
}
const MOST_CONES = 4;

function alongArc(model: SheetModel, size: SizeOf<"arc">, view: View): Presentation[] {
  const c = model.body.on(size.of);
  if (c?.kind !== "cylinder" || !isParallel(c.axis, view.gaze.toViewer)) return [];
  const vertex = project(view, c.at);
  const at = model
    .points(size.of)
    .map((p) => angleOf(sub2(project(view, p), vertex)))
    .sort((a, b) => a - b);
  // the arc is all but the widest gap
  const gaps = at.map((v, i) => (i + 1 < at.length ? at[i + 1]! : at[0]! + TURN) - v);
  const widest = gaps.indexOf(Math.max(...gaps));
  if (widest < 0) return [];
  const from = at[(widest + 1) % at.length]!,
    reach = [c.radius, c.radius] as const;
  const legs = [
    { angle: from, reach },
    { angle: from + TURN - gaps[widest]!, reach },
  ] as const;
  return [{ view, fault: 0, form: "angular", vertex, legs, radius: c.radius }];
}
