import { add3, distance2, dot2, scale3, sub2, type Vec2 } from "@/core/geometry/vector";
import { axisOf, distanceTo } from "@/core/kernel/carrier";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "@/core/sizes/anchor";
import { letteredLength, type Lettering } from "@/core/sizes/lettering";
import { measureSize, type Size } from "@/core/sizes/size";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { seenWay } from "../views/direction";
import type { SheetModel } from "../views/model";
import { ALONG_VIEW, NEAR } from "../tolerance";
import { isWithin, project, upOf, type View } from "../views/views";

/** Something of the part that a place of a view shows. */
export interface SheetThing {
  /** Its face, as the reference calls it. */
  readonly face: string;
  /** What a person would call it. */
  readonly name: string;
  /** It goes all the way round: sized by its diameter. */
  readonly isWhole?: boolean;
  readonly isRound: boolean;
}

/**
 * The face that a place of a view means: one seen edge on, or round, whose line is nearest.
 * @param at view coordinates @param near how far off it may be, mm of the part
 */
export function thingAt(
  model: SheetModel,
  view: View,
  at: Vec2,
  near: number,
  lettering: Lettering,
): SheetThing | undefined {
  let best: { off: number; s: Surface } | undefined;
  if (!isWithin(view, at, near)) return undefined;
  for (const s of model.body.surfaces) {
    const off = distanceFrom(model, s, view, at);
    if (off !== undefined && off < near && (!best || off < best.off)) best = { off, s };
  }
  if (!best) return undefined;
  const { carrier, keys } = best.s,
    isRound = axisOf(carrier) !== undefined || carrier.kind === "sphere",
    radius = carrier.kind === "cylinder" || carrier.kind === "sphere" ? carrier.radius : undefined;
  const isWhole = goesRound(best.s) || carrier.kind === "sphere";
  const size =
    radius === undefined ? "" : ` ${isWhole ? "⌀" : "R"}${letteredLength(isWhole ? 2 * radius : radius, lettering)}`;
  const noun = {
    plane: "flat face",
    cylinder: "round face",
    cone: "cone",
    sphere: "ball",
    torus: "ring",
    elliptic: "elliptic face",
  };
  return { face: keys[0]!, name: `${noun[carrier.kind as keyof typeof noun] ?? "face"}${size}`, isWhole, isRound };
}

/** How far a place is from the line a face is drawn as; undefined where it is seen as no line of its own. */
function distanceFrom(model: SheetModel, surface: Surface, view: View, at: Vec2): number | undefined {
  const points = model.points(surface.keys[0]!).map((p) => project(view, p));
  const c = surface.carrier;
  const within = (along: Vec2): boolean => {
    const reach = points.map((p) => dot2(p, along)),
      here = dot2(at, along);
    return here >= Math.min(...reach) - NEAR && here <= Math.max(...reach) + NEAR;
  };
  if (c.kind === "plane") {
    const n = seenWay(view.gaze, c.normal);
    if (Math.hypot(...n) < ALONG_VIEW || !points.length) return undefined;
    return within([-n[1], n[0]]) ? Math.abs(dot2(sub2(at, points[0]!), n)) : undefined;
  }
  const axis = axisOf(c);
  if (c.kind === "elliptic" && isParallel(c.axis, view.gaze.toViewer)) {
    const place = add3(scale3(view.gaze.right, at[0]), scale3(upOf(view.gaze), at[1]));
    return Math.min(distanceTo(c, place), distance2(at, project(view, c.at)));
  }
  if (c.kind !== "cylinder" || !axis) return undefined;
  const centre = project(view, axis.at);
  if (isParallel(axis.along, view.gaze.toViewer)) {
    // an arc is met where it is, its middle where a cross stands
    const rim = Math.abs(distance2(at, centre) - c.radius);
    if (goesRound(surface)) return Math.min(rim, distance2(at, centre));
    const span = Math.max(...points.map((p) => Math.abs(distance2(p, at))));
    return points.some((p) => distance2(p, at) < span / 2) ? rim : undefined;
  }
  if (!isSquare(axis.along, view.gaze.toViewer)) return undefined;
  const way = seenWay(view.gaze, axis.along),
    off = Math.abs(dot2(sub2(at, centre), [-way[1], way[0]]));
  return within(way) ? Math.min(Math.abs(off - c.radius), off) : undefined;
}

/** The size that two things make, or one round thing alone; refused in a sentence where they make none. */
export function sizeOfThings(model: SheetModel, id: string, a: SheetThing, b?: SheetThing): Outcome<Size> {
  const { on } = model.body;
  const isAlone = !b || b.face === a.face;
  if (isAlone && !a.isRound) return refuse("one-flat", "Click a second thing: one flat face alone has no size.");
  const round: Size = a.isWhole ? { id, kind: "diameter", of: [[a.face]] } : { id, kind: "radius", of: [a.face] };
  const tries: readonly Size[] = isAlone
    ? [round, { id, kind: "ellipse", of: [a.face] }]
    : (["distance", "angle"] as const).map((kind) => ({ id, kind, from: [a.face], to: [b.face] }));
  const size = tries.find((s) => measureSize(s, on)[0]);
  if (size) return done(size);
  return refuse("no-size", "Between these two there is neither a distance nor an angle. Click two others.");
}
