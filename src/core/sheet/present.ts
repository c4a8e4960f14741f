import { add3, dot3, scale3, sub3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Support } from "@/core/measure/measure";
import type { Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare, lineOf, supportAt, wayOf, type Anchor } from "@/core/sizes/anchor";
import { facesOfSize, type Size, type SizeOf } from "@/core/sizes/size";
import type { SheetModel } from "./model";
import { strokeSegments } from "./obstacles";
import { distanceToSegment } from "./plane";
import { ALONG_VIEW, ON_STROKE } from "./tolerance";
import { project, upOf, type View } from "./views";

/** An end of a dimension: where it is along the measured way, and from where to where its thing reaches across. */
export interface End {
  readonly at: Vec2;
  /** Least and most across: an extension line begins at the one nearest to the dimension line. */
  readonly across: readonly [number, number];
}

/** A place a leader can point to, and the ways it may come from; view coordinates, mm of the part. */
export interface Tip {
  readonly at: Vec2;
  /** Unit, from the tip away. */
  readonly from: Vec2;
}

/** A way to show a size in a view. `fault` grows with what a draughtsman would not like about the view. */
export type Presentation = { readonly view: View; readonly fault: number } & (
  | { readonly form: "linear"; readonly along: "x" | "y"; readonly a: End; readonly b: End }
  | { readonly form: "leader"; readonly tips: readonly Tip[] }
);

/** Not the shape, but a place of it is seen; and: nothing of it is visible. */
const FAULT = { notItsShape: 60, hidden: 40, anotherForm: 12 };

/** Every way a size can be shown in some of the views; none where no view shows it. */
export function presentationsOf(model: SheetModel, size: Size, views: readonly View[]): Presentation[] {
  const flat = views.filter((v) => v.name !== "pictorial");
  const list = flat.flatMap((view): Presentation[] => {
    switch (size.kind) {
      case "distance":
        return linear(model, size, view);
      case "diameter":
        return [
          ...acrossLong(model, size, view),
          ...(isOfTurned(model, size, views) ? dearer : same)(pointed(model, size, view)),
        ];
      case "wall":
        return [...wallAcross(model, size, view), ...dearer(pointed(model, size, view))];
      case "pitch":
        return rowAlong(model, size.of, view, 0);
      case "slot":
        return size.of.flatMap((ends) => rowAlong(model, ends, view, size.overall ? 1 : 0));
      default:
        return pointed(model, size, view);
    }
  });
  return list.sort((p, q) => p.fault - q.fault);
}

const same = (list: Presentation[]) => list;
const dearer = (list: Presentation[]) => list.map((p) => ({ ...p, fault: p.fault + FAULT.anotherForm }));

/** Diameters about the axis of a turned part stand on its long view. */
function isOfTurned(model: SheetModel, size: SizeOf<"diameter">, views: readonly View[]): boolean {
  const long = views.find((v) => v.name === "long"),
    c = model.body.on(facesOfSize(size)[0] ?? "");
  const axis = c && axisOf(c);
  if (!long || !axis || !isParallel(axis.along, long.gaze.right)) return false;
  const middle = (long.box.min[1] + long.box.max[1]) / 2;
  return Math.abs(project(long.gaze, axis.at)[1] - middle) < ON_STROKE * sizeOf(long);
}

/** From the first to the last of axes in a row; `rims` widens it by the radius at either end. */
function rowAlong(model: SheetModel, faces: readonly string[], view: View, rims: 0 | 1): Presentation[] {
  const carriers = [faces[0], faces[faces.length - 1]].map((f) => model.body.on(f ?? ""));
  const [a, b] = carriers.map((c) => (c?.kind === "cylinder" ? c : undefined));
  if (!a || !b || !isParallel(a.axis, view.gaze.toViewer)) return [];
  const way = sub3(b.at, a.at),
    l = Math.hypot(...way);
  const d = scale3(way, 1 / (l || 1)),
    along = alongIn(view, d);
  if (!along) return [];
  const end = (at: Vec3): End => {
    const p = project(view.gaze, at);
    return { at: p, across: along === "x" ? [p[1], p[1]] : [p[0], p[0]] };
  };
  const [first, last] = [add3(a.at, scale3(d, -rims * a.radius)), add3(b.at, scale3(d, rims * b.radius))];
  return [{ view, fault: 0, form: "linear", along, a: end(first), b: end(last) }];
}

const surfaceOf = (model: SheetModel, face: string): Surface | undefined =>
  model.body.surfaces.find((s) => s.keys.includes(face));

/** Points along the edges of a face as a view shows them, those on visible lines where some are. */
function seenPoints(model: SheetModel, face: string, view: View): { points: Vec2[]; isSeen: boolean } {
  const all = model.points(face).map((p) => project(view.gaze, p));
  const seen = all.filter((p) => isOnStroke(view, p));
  return seen.length ? { points: seen, isSeen: true } : { points: all, isSeen: false };
}

const visible = new WeakMap<View, (readonly [Vec2, Vec2])[]>();
function visibleSegments(view: View) {
  let list = visible.get(view);
  if (!list)
    visible.set(view, (list = view.strokes.filter((s) => !s.hidden && !s.tangent).flatMap((s) => strokeSegments(s))));
  return list;
}
const isOnStroke = (view: View, p: Vec2): boolean =>
  visibleSegments(view).some((s) => distanceToSegment(p, s) < ON_STROKE * sizeOf(view));
const sizeOf = (view: View) => Math.hypot(view.box.max[0] - view.box.min[0], view.box.max[1] - view.box.min[1]);

/** The direction a straight distance is measured along, as x or y of a view; undefined where the view shows neither. */
function alongIn(view: View, d: Vec3): "x" | "y" | undefined {
  if (Math.abs(dot3(d, view.gaze.right)) > ALONG_VIEW) return "x";
  return Math.abs(dot3(d, upOf(view.gaze))) > ALONG_VIEW ? "y" : undefined;
}

function linear(model: SheetModel, size: SizeOf<"distance">, view: View): Presentation[] {
  const { on } = model.body;
  const p = supportAt(size.from, on),
    q = supportAt(size.to, on);
  if (!p || !q) return [];
  const way = size.along === undefined ? (planeWay(p) ?? planeWay(q)) : wayOf(supportAt([size.along], on));
  const d = way ?? betweenAxes(p, q),
    along = d && alongIn(view, d);
  if (!d || !along) return [];
  const other = (s: Support) => placeOf(s) ?? undefined;
  const a = endOf(model, size.from, p, size.sides?.[0], d, other(q), view, along),
    b = endOf(model, size.to, q, size.sides?.[1], d, other(p), view, along);
  if (!a || !b) return [];
  // best where round things are seen round
  const axes = [lineOf(p), lineOf(q)].filter((l) => l !== undefined);
  const isShape = axes.every((l) => isParallel(l.along, view.gaze.toViewer) || isParallel(l.along, d));
  const fault = (isShape ? 0 : FAULT.notItsShape) + (a.isSeen && b.isSeen ? 0 : FAULT.hidden);
  return [{ view, fault, form: "linear", along, a: a.end, b: b.end }];
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
  s: Support,
  side: "near" | "far" | "centre" | undefined,
  d: Vec3,
  other: Vec3 | undefined,
  view: View,
  along: "x" | "y",
): { end: End; isSeen: boolean } | undefined {
  const [i, k] = along === "x" ? ([0, 1] as const) : ([1, 0] as const);
  const place = placeOf(s);
  if (!place) {
    const { points, isSeen } = seenPoints(model, anchor[0]!, view);
    if (!points.length) return undefined;
    const across = points.map((p) => p[k]);
    return { end: { at: points[0]!, across: [Math.min(...across), Math.max(...across)] }, isSeen };
  }
  const at = project(view.gaze, reached(place, s, side, d, other));
  const line = lineOf(s);
  // a line that lies in the view reaches as far as its face does
  const isLong = line && isSquare(line.along, view.gaze.toViewer) && !("point" in s);
  const reach = isLong ? seenPoints(model, anchor[0]!, view).points.map((p) => p[k]) : [at[k]];
  const span: [number, number] = [Math.min(...reach, at[k]), Math.max(...reach, at[k])];
  const flat: Vec2 = along === "x" ? [at[i], at[k]] : [at[k], at[i]];
  const round = surfaceOf(model, anchor[0]!);
  const isRoundSeen = !round || !line || !isParallel(line.along, view.gaze.toViewer) || hasVisibleArc(view, round, at);
  return { end: { at: flat, across: span }, isSeen: isRoundSeen };
}

function hasVisibleArc(view: View, s: Surface, centre: Vec2): boolean {
  const c = s.carrier;
  if (c.kind !== "cylinder") return true;
  return view.strokes.some((t) => t.kind === "arc" && !t.hidden && isArcOf(t, centre, c.radius, sizeOf(view)));
}
const isArcOf = (t: { centre: Vec2; radius: number }, centre: Vec2, radius: number, size: number): boolean =>
  Math.hypot(t.centre[0] - centre[0], t.centre[1] - centre[1]) < ON_STROKE * size &&
  Math.abs(t.radius - radius) < ON_STROKE * size;

/** The end moved to the round side that is meant. */
function reached(at: Vec3, s: Support, side: "near" | "far" | "centre" | undefined, d: Vec3, other: Vec3 | undefined) {
  if (!side || side === "centre" || !("line" in s) || s.radius === undefined || !other) return at;
  const away = dot3(sub3(at, other), d) >= 0 ? 1 : -1;
  return add3(at, scale3(d, s.radius * away * (side === "far" ? 1 : -1)));
}

/** A diameter across the long view: between the two outlines of the round face. */
function acrossLong(model: SheetModel, size: SizeOf<"diameter">, view: View): Presentation[] {
  const face = facesOfSize(size)[0],
    s = face === undefined ? undefined : surfaceOf(model, face);
  const axis = s && axisOf(s.carrier);
  if (face === undefined || !s || s.carrier.kind !== "cylinder" || !axis) return [];
  if (!isSquare(axis.along, view.gaze.toViewer)) return [];
  const lying = alongIn(view, axis.along);
  if (!lying) return [];
  const along = lying === "x" ? "y" : "x",
    k = lying === "x" ? 0 : 1;
  const centre = project(view.gaze, axis.at),
    reach = model.points(face).map((p) => project(view.gaze, p)[k]);
  const { radius } = s.carrier;
  const end = (sign: 1 | -1): End => ({
    at: along === "y" ? [centre[0], centre[1] + sign * radius] : [centre[0] + sign * radius, centre[1]],
    across: [Math.min(...reach), Math.max(...reach)],
  });
  const middle = (Math.min(...reach) + Math.max(...reach)) / 2;
  const on = (sign: 1 | -1): Vec2 =>
    along === "y" ? [middle, centre[1] + sign * radius] : [centre[0] + sign * radius, middle];
  const seen = ([1, -1] as const).filter((sign) => isOnStroke(view, on(sign))).length;
  // in a half section only one of the two sides of a bore is drawn
  const isEnough = seen === 2 || (view.isHalf && seen === 1);
  const isTurned = view.name === "long";
  const fault = (isEnough ? 0 : FAULT.hidden) + (isTurned ? 0 : FAULT.anotherForm);
  return [{ view, fault, form: "linear", along, a: end(-1), b: end(1) }];
}

/** A wall between two flat faces that a view sees edge on. */
function wallAcross(model: SheetModel, size: SizeOf<"wall">, view: View): Presentation[] {
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
    return [{ view, fault, form: "linear", along, a: a.end, b: b.end }];
  });
}
const MOST_WALLS = 6;

/** Directions leaders come from, degrees: between 30 and 60 in every quarter. */
const LEANS = [45, 135, 315, 225, 30, 60, 150, 120, 330, 300, 210, 240];
const wayAt = (degrees: number): Vec2 => [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
const MOST_TIPS = 40;

/** A leader to a face of the size: to the arc itself where it is seen round, else to a visible edge of it. */
function pointed(model: SheetModel, size: Size, view: View): Presentation[] {
  const faces = size.kind === "chamfer" ? size.of.map((b) => b.slant) : facesOfSize(size);
  const isRoundKind = ROUND.has(size.kind);
  const tips: Tip[] = [],
    edges: Tip[] = [];
  let isHidden = true,
    isShape = false;
  for (const face of faces.slice(0, MOST_FACES)) {
    const s = surfaceOf(model, face);
    if (!s) continue;
    const round = roundTips(s, view);
    if (round.length && isRoundKind) {
      tips.push(...round);
      isHidden = false;
      isShape = true;
      continue;
    }
    const { points, isSeen } = seenPoints(model, face, view);
    if (isSeen) isHidden = false;
    const axis = axisOf(s.carrier)?.along,
      flat = s.carrier.kind === "plane" ? s.carrier.normal : undefined;
    // a bevel, a cone and an angle are seen from the side
    if (!isRoundKind && ((axis && isSquare(axis, view.gaze.toViewer)) || (flat && isSquare(flat, view.gaze.toViewer))))
      isShape = true;
    const step = Math.max(1, Math.floor(points.length / 4));
    for (let i = 0; i < points.length; i += step)
      edges.push(...LEANS.slice(0, 4).map((deg): Tip => ({ at: points[i]!, from: wayAt(deg) })));
  }
  const chosen = (tips.length ? tips : edges).slice(0, MOST_TIPS);
  if (!chosen.length) return [];
  const fault = (isShape ? 0 : FAULT.notItsShape) + (isHidden ? FAULT.hidden : 0);
  return [{ view, fault, form: "leader", tips: chosen }];
}
const MOST_FACES = 12;
const ROUND: ReadonlySet<Size["kind"]> = new Set<Size["kind"]>([
  "diameter",
  "radius",
  "counterbore",
  "countersink",
  "depth",
  "thread",
  "circle",
  "count",
]);

/** Places on the visible arcs of a round face that is seen along its axis, or of a ring cut across. */
function roundTips(s: Surface, view: View): Tip[] {
  const c = s.carrier;
  const centre =
    c.kind === "cylinder" || c.kind === "cone" ? axisOf(c)!.at : c.kind === "sphere" ? c.centre : undefined;
  const size = sizeOf(view);
  const arcs = view.strokes.flatMap((t) => {
    if (t.kind !== "arc" || t.hidden || t.tangent) return [];
    if (c.kind === "torus") return Math.abs(t.radius - c.minor) < ON_STROKE * size ? [t] : [];
    if (!centre) return [];
    const isAlong = c.kind === "sphere" || isParallel(axisOf(c)!.along, view.gaze.toViewer);
    const at = project(view.gaze, centre);
    const isOwn =
      c.kind === "cone"
        ? nearPlace(t.centre, at, size)
        : isArcOf(t, at, c.kind === "cylinder" || c.kind === "sphere" ? c.radius : 0, size);
    return isAlong && isOwn ? [t] : [];
  });
  return arcs.flatMap((t) =>
    LEANS.flatMap((deg): Tip[] => {
      const angle = (deg * Math.PI) / 180;
      const isOn = [angle, angle + 2 * Math.PI].some((x) => x >= t.from && x <= t.to);
      if (!isOn) return [];
      const from = wayAt(deg);
      return [{ at: [t.centre[0] + t.radius * from[0], t.centre[1] + t.radius * from[1]], from }];
    }),
  );
}
const nearPlace = (a: Vec2, b: Vec2, size: number) => Math.hypot(a[0] - b[0], a[1] - b[1]) < ON_STROKE * size;
