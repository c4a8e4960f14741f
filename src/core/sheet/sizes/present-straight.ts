import { add2, add3, dot2, dot3, scale2, scale3, sub3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Support } from "@/core/measure/measure";
import type { Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare, lineOf, supportAt, type Anchor } from "@/core/sizes/anchor";
import { wayAlong } from "@/core/sizes/kinds/distance";
import { facesOfSize, type SizeOf } from "@/core/sizes/size";
import { above, alongIn, reachOf, readable } from "../views/direction";
import type { SheetModel } from "../views/model";
import { FAULT, type End, type Presentation } from "./presentation";
import { isArcOf, isOnStroke, seenPoints, sizeOf, surfaceOf } from "../views/seen";
import { ON_STROKE } from "../tolerance";
import { project, type View } from "../views/views";

/** Diameters about the axis of a turned part stand on its long view. */
export function isOfTurned(model: SheetModel, size: SizeOf<"diameter">, views: readonly View[]): boolean {
  const long = views.find((v) => v.name === "long"),
    c = model.body.on(facesOfSize(size)[0] ?? "");
  const axis = c && axisOf(c);
  if (!long || !axis || !isParallel(axis.along, long.gaze.right)) return false;
  const middle = (long.box.min[1] + long.box.max[1]) / 2;
  return Math.abs(project(long, axis.at)[1] - middle) < ON_STROKE * sizeOf(long);
}

/** From the first to the last of axes in a row; `rims` widens it by the radius at either end. */
export function rowAlong(model: SheetModel, faces: readonly string[], view: View, rims: 0 | 1): Presentation[] {
  const carriers = [faces[0], faces[faces.length - 1]].map((f) => model.body.on(f ?? ""));
  const [a, b] = carriers.map((c) => (c?.kind === "cylinder" ? c : undefined));
  if (!a || !b || !isParallel(a.axis, view.gaze.toViewer)) return [];
  const way = sub3(b.at, a.at),
    l = Math.hypot(...way);
  const d = scale3(way, 1 / (l || 1)),
    along = alongIn(view, d);
  if (!along) return [];
  const end = (at: Vec3): End => {
    const p = project(view, at),
      v = dot2(p, above(along));
    return { at: p, across: [v, v] };
  };
  const [first, last] = [add3(a.at, scale3(d, -rims * a.radius)), add3(b.at, scale3(d, rims * b.radius))];
  return [{ view, fault: 0, form: "straight", along, a: end(first), b: end(last) }];
}

export function linear(model: SheetModel, size: SizeOf<"distance">, view: View): Presentation[] {
  const { on } = model.body;
  const support = supportAt(size.from, on),
    q = supportAt(size.to, on);
  if (!support || !q) return [];
  const way = size.along === undefined ? (planeWay(support) ?? planeWay(q)) : wayAlong(size, on);
  const d = way ?? betweenAxes(support, q),
    along = d && alongIn(view, d);
  if (!d || !along) return [];
  const a = endOf(model, size.from, support, size.sides?.[0], d, placeOf(q), view, along),
    b = endOf(model, size.to, q, size.sides?.[1], d, placeOf(support), view, along);
  if (!a || !b) return [];
  // best where round things are seen round
  const axes = [lineOf(support), lineOf(q)].filter((l) => l !== undefined);
  const isShape = axes.every((l) => isParallel(l.along, view.gaze.toViewer) || isParallel(l.along, d));
  const fault = (isShape ? 0 : FAULT.notItsShape) + (a.isSeen && b.isSeen ? 0 : FAULT.hidden);
  return [{ view, fault, form: "straight", along, a: a.end, b: b.end }];
}

const planeWay = (s: Support): Vec3 | undefined => ("plane" in s ? s.plane.normal : undefined);
const placeOf = (s: Support): Vec3 | undefined => {
  if ("point" in s) return s.point;
  return "line" in s ? (s.centre ?? s.line.at) : undefined;
};

function betweenAxes(p: Support, q: Support): Vec3 | undefined {
  const [a, b] = [lineOf(p), lineOf(q)];
  if (!a || !b || !isParallel(a.along, b.along)) return undefined;
  const apart = sub3(b.at, a.at),
    across = sub3(apart, scale3(a.along, dot3(apart, a.along)));
  const length = Math.hypot(...across);
  return length > 0 ? scale3(across, 1 / length) : undefined;
}

function endOf(
  model: SheetModel,
  anchor: Anchor,
  support: Support,
  side: "near" | "far" | "centre" | undefined,
  d: Vec3,
  other: Vec3 | undefined,
  view: View,
  along: Vec2,
): { end: End; isSeen: boolean } | undefined {
  const across = (p: Vec2) => dot2(p, above(along));
  const place = placeOf(support);
  if (!place) {
    const { points, isSeen } = seenPoints(model, anchor[0]!, view);
    if (!points.length) return undefined;
    return { end: { at: points[0]!, across: reachOf(points, above(along)) }, isSeen };
  }
  const at = project(view, reached(place, support, side, d, other));
  const line = lineOf(support);
  // a line that lies in the view reaches as far as its face does
  const isLong = line && isSquare(line.along, view.gaze.toViewer) && !("point" in support);
  const reach = isLong ? seenPoints(model, anchor[0]!, view).points.map(across) : [];
  const span: [number, number] = [Math.min(...reach, across(at)), Math.max(...reach, across(at))];
  const round = surfaceOf(model, anchor[0]!);
  const isRoundSeen =
    !round ||
    !line ||
    !isParallel(line.along, view.gaze.toViewer) ||
    hasVisibleArc(view, round, project(view, place), side === undefined || side === "centre");
  return { end: { at, across: span }, isSeen: isRoundSeen };
}

/** Whether a round face is seen round; of an axis any circle about it shows where it is. */
function hasVisibleArc(view: View, s: Surface, centre: Vec2, isOfAxis: boolean): boolean {
  const c = s.carrier;
  if (c.kind !== "cylinder") return true;
  return view.strokes.some(
    (t) => t.kind === "arc" && !t.hidden && isArcOf(t, centre, isOfAxis ? t.radius : c.radius, sizeOf(view)),
  );
}

/** The end moved to the round side that is meant. */
function reached(at: Vec3, s: Support, side: "near" | "far" | "centre" | undefined, d: Vec3, other: Vec3 | undefined) {
  if (!side || side === "centre" || !("line" in s) || s.radius === undefined || !other) return at;
  const away = dot3(sub3(at, other), d) >= 0 ? 1 : -1;
  return add3(at, scale3(d, s.radius * away * (side === "far" ? 1 : -1)));
}

/** What a diameter is measured across: a cylinder over its length, or the circle that a cone ends at. */
function roundOf(model: SheetModel, size: SizeOf<"diameter">) {
  const [anchor] = size.of;
  const face = anchor?.[0],
    s = face === undefined ? undefined : surfaceOf(model, face);
  if (!anchor || face === undefined || !s) return undefined;
  const { carrier } = s,
    line = axisOf(carrier);
  if (carrier.kind === "cylinder" && line) return { line, radius: carrier.radius, points: model.points(face) };
  const rim = anchor.length > 1 ? supportAt(anchor, model.body.on) : undefined;
  if (!rim || !("line" in rim) || !rim.centre || rim.radius === undefined) return undefined;
  return { line: rim.line, radius: rim.radius, points: [rim.centre] };
}

/** A diameter across the long view: between the two outlines of the round face, or the ends of a rim. */
export function acrossLong(model: SheetModel, size: SizeOf<"diameter">, view: View): Presentation[] {
  const round = roundOf(model, size);
  if (!round || !isSquare(round.line.along, view.gaze.toViewer)) return [];
  const lying = alongIn(view, round.line.along);
  if (!lying) return [];
  const along = readable(above(lying)),
    centre = project(view, round.line.at),
    points = round.points.map((p) => project(view, p));
  const side = (sign: 1 | -1): Vec2 => add2(centre, scale2(along, sign * round.radius));
  const end = (sign: 1 | -1): End => ({ at: side(sign), across: reachOf(points, above(along)) });
  const [from, to] = reachOf(points, lying);
  const on = (sign: 1 | -1, share: number): Vec2 =>
    add2(side(sign), scale2(lying, from + (to - from) * share - dot2(centre, lying)));
  // a keyway or a hole may interrupt the outline
  const seen = ([1, -1] as const).filter((sign) => SHARES.some((s) => isOnStroke(view, on(sign, s)))).length;
  // in a half section only one of the two sides of a bore is drawn
  const isEnough = seen === 2 || (view.isHalf && seen === 1);
  const isTurned = view.name === "long";
  const fault = (isEnough ? 0 : FAULT.hidden) + (isTurned ? 0 : FAULT.anotherForm);
  return [{ view, fault, form: "straight", along, a: end(-1), b: end(1) }];
}

/** Where along a round face its outlines are looked for. */
const SHARES = [0.5, 0.1, 0.9];

/** A wall between two flat faces that a view sees edge on. */
export function wallAcross(model: SheetModel, size: SizeOf<"wall">, view: View): Presentation[] {
  return size.of.slice(0, MOST_WALLS).flatMap((pair): Presentation[] => {
    const [outer, inner] = pair.map((f) => surfaceOf(model, f));
    if (outer?.carrier.kind !== "plane" || inner?.carrier.kind !== "plane") return [];
    const along = alongIn(view, outer.carrier.normal);
    if (!along) return [];
    const ends = pair.map((f) => {
      const support = supportAt([f], model.body.on);
      return support && endOf(model, [f], support, undefined, [0, 0, 0], undefined, view, along);
    });
    const [a, b] = ends;
    if (!a || !b) return [];
    const fault = a.isSeen && b.isSeen ? 0 : FAULT.hidden;
    return [{ view, fault, form: "straight", along, a: a.end, b: b.end }];
  });
}
const MOST_WALLS = 6;
