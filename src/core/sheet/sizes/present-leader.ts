import {
  add2,
  add3,
  cross3,
  dot2,
  dot3,
  scale2,
  scale3,
  sub2,
  sub3,
  unit3,
  type Vec2,
  type Vec3,
} from "@/core/geometry/vector";
import { axisOf, type Carrier, type Elliptic } from "@/core/kernel/carrier";
import type { Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "@/core/sizes/anchor";
import { facesOfSize, type Size } from "@/core/sizes/size";
import { pipeOf } from "../views/centres";
import { seenWay } from "../views/direction";
import type { SheetModel } from "../views/model";
import { FAULT, type Presentation, type Tip, type TouchedArc } from "./presentation";
import { isArcOf, isOnStroke, seenPoints, sizeOf, surfaceOf } from "../views/seen";
import { ON_STROKE } from "../tolerance";
import { project, type View } from "../views/views";

/** Directions leaders come from, degrees: between 30 and 60 in every quarter. */
const LEANS = [45, 135, 315, 225, 30, 60, 150, 120, 330, 300, 210, 240];
const wayAt = (degrees: number): Vec2 => [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
const MOST_TIPS = 40;

/** A leader to a face of the size: to the arc itself where it is seen round, else to a visible edge of it. */
export function pointed(model: SheetModel, size: Size, view: View): Presentation[] {
  const faces = size.kind === "chamfer" ? size.of.map((b) => b.slant) : facesOfSize(size);
  const isRoundKind = ROUND.has(size.kind);
  const tips: Tip[] = [],
    arcs: TouchedArc[] = [],
    edges: Tip[] = [];
  let isHidden = true,
    isShape = false;
  for (const face of faces.slice(0, MOST_FACES)) {
    const surface = surfaceOf(model, face);
    if (!surface) continue;
    const pipe = size.kind === "diameter" ? pipeOf(model, surface, view, 0) : undefined,
      outlines = isRoundKind ? roundArcs(surface, view) : [];
    // how a pipe is bent is told at its middle line
    const round = pipe ? pipe.arcs : outlines;
    if (round.length) {
      tips.push(...round.flatMap(tipsOn));
      arcs.push(...round);
      isHidden = false;
      isShape = true;
      continue;
    }
    const seen = seenPoints(model, face, view),
      slants = outlineTips(surface.carrier, model.points(face), view);
    const points = slants.length ? [] : seen.points;
    edges.push(...slants);
    if (seen.isSeen) isHidden = false;
    const axis = axisOf(surface.carrier)?.along,
      flat = surface.carrier.kind === "plane" ? surface.carrier.normal : undefined;
    if (surface.carrier.kind === "elliptic" && axis) isShape = isParallel(axis, view.gaze.toViewer);
    // a bevel, a cone and an angle are seen from the side
    else if (
      !isRoundKind &&
      ((axis && isSquare(axis, view.gaze.toViewer)) || (flat && isSquare(flat, view.gaze.toViewer)))
    )
      isShape = true;
    const step = Math.max(1, Math.floor(points.length / 4));
    for (let i = 0; i < points.length; i += step)
      edges.push(...LEANS.slice(0, 4).map((deg): Tip => ({ at: points[i]!, from: wayAt(deg) })));
  }
  const chosen = (tips.length ? tips : edges).slice(0, MOST_TIPS);
  if (!chosen.length) return [];
  const fault = (isShape ? 0 : FAULT.notItsShape) + (isHidden ? FAULT.hidden : 0);
  return [{ view, fault, form: "leader", tips: chosen, ...(arcs.length > 0 && { arcs }) }];
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
  "slot",
  "ellipse",
]);

/** Places on an outline to which leaders come from outside, square to it as nearly as they may. */
function outlineTips(carrier: Carrier, rims: readonly Vec3[], view: View): Tip[] {
  if (carrier.kind === "cone") return tipsOnOutline(carrier, rims, view);
  return carrier.kind === "elliptic" ? tipsOnEllipse(carrier, view) : [];
}

/** Round an ellipse that is seen as one. */
function tipsOnEllipse(c: Elliptic, view: View): Tip[] {
  if (!isParallel(c.axis, view.gaze.toViewer)) return [];
  const middle = project(view, c.at),
    long = seenWay(view.gaze, c.long),
    short: Vec2 = [-long[1], long[0]];
  return LEANS.flatMap((deg): Tip[] => {
    const [u, v] = wayAt(deg),
      [a, b] = c.halves;
    const at = add2(middle, add2(scale2(long, a * u), scale2(short, b * v))),
      normal = add2(scale2(long, u / a), scale2(short, v / b)),
      length = Math.hypot(...normal);
    if (!isOnStroke(view, at)) return [];
    return LEANS.map(wayAt).flatMap((from) => (dot2(from, normal) > FROM_OUTSIDE * length ? [{ at, from }] : []));
  });
}

/**
 * Places in the middle of a cone's two outlines where it is seen from the side, for leaders that come from outside: its
 * rims are lines of other faces too.
 */
function tipsOnOutline(c: Extract<Carrier, { kind: "cone" }>, rims: readonly Vec3[], view: View): Tip[] {
  const { toViewer } = view.gaze;
  if (!isSquare(c.axis, toViewer)) return [];
  const heights = rims.map((p) => dot3(c.axis, sub3(p, c.tip)));
  const height = (Math.min(...heights) + Math.max(...heights)) / 2,
    across = unit3(cross3(c.axis, toViewer)),
    middle = add3(c.tip, scale3(c.axis, height)),
    origin = project(view, [0, 0, 0]);
  return [1, -1].flatMap((side) => {
    const out = scale3(across, side),
      at = project(view, add3(middle, scale3(out, Math.abs(height) * Math.tan(c.half))));
    // square to the outline: out from the axis, and towards the tip by as much as the cone leans
    const away = sub3(scale3(out, Math.cos(c.half)), scale3(c.axis, Math.sin(c.half) * Math.sign(height)));
    const normal = sub2(project(view, away), origin);
    if (!isOnStroke(view, at)) return [];
    return LEANS.map(wayAt).flatMap((from) => (dot2(from, normal) > FROM_OUTSIDE ? [{ at, from }] : []));
  });
}
/** Within forty degrees of square. */
const FROM_OUTSIDE = 0.76;

/** The visible arcs of a round face that is seen along its axis, or of a ring cut across. */
function roundArcs(s: Surface, view: View): TouchedArc[] {
  const c = s.carrier;
  const centre =
    c.kind === "cylinder" || c.kind === "cone" ? axisOf(c)!.at : c.kind === "sphere" ? c.centre : undefined;
  const size = sizeOf(view);
  return view.strokes.flatMap((stroke) => {
    if (stroke.kind !== "arc" || stroke.hidden || stroke.tangent) return [];
    if (c.kind === "torus") return Math.abs(stroke.radius - c.minor) < ON_STROKE * size ? [stroke] : [];
    if (!centre) return [];
    const isAlong = c.kind === "sphere" || isParallel(axisOf(c)!.along, view.gaze.toViewer);
    const at = project(view, centre);
    const isOwn =
      c.kind === "cone"
        ? nearPlace(stroke.centre, at, size)
        : isArcOf(stroke, at, c.kind === "cylinder" || c.kind === "sphere" ? c.radius : 0, size);
    return isAlong && isOwn ? [stroke] : [];
  });
}

/** Places on an arc that leaders like to point to. */
const tipsOn = (t: TouchedArc): Tip[] =>
  LEANS.flatMap((deg): Tip[] => {
    const angle = (deg * Math.PI) / 180;
    if (!isOnArc(t, angle)) return [];
    const from = wayAt(deg);
    return [{ at: [t.centre[0] + t.radius * from[0], t.centre[1] + t.radius * from[1]], from }];
  });
export const isOnArc = (t: TouchedArc, angle: number): boolean =>
  [angle - 2 * Math.PI, angle, angle + 2 * Math.PI].some((x) => x >= t.from && x <= t.to);
const nearPlace = (a: Vec2, b: Vec2, size: number) => Math.hypot(a[0] - b[0], a[1] - b[1]) < ON_STROKE * size;
