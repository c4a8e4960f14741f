import type { Vec2 } from "@/core/geometry/vector";
import type { Surface } from "@/core/measure/surfaces";
import type { SheetModel } from "./model";
import { strokeSegments } from "./obstacles";
import { distanceToSegment } from "../plane";
import { ON_STROKE } from "../tolerance";
import { project, type View } from "./views";

export const surfaceOf = (model: SheetModel, face: string): Surface | undefined =>
  model.body.surfaces.find((s) => s.keys.includes(face));

/** Points along the edges of a face as a view shows them, those on visible lines where some are. */
export function seenPoints(model: SheetModel, face: string, view: View): { points: Vec2[]; isSeen: boolean } {
  const all = model.points(face).map((p) => project(view, p));
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
export const isOnStroke = (view: View, p: Vec2): boolean =>
  visibleSegments(view).some((s) => distanceToSegment(p, s) < ON_STROKE * sizeOf(view));
export const sizeOf = (view: View) => Math.hypot(view.box.max[0] - view.box.min[0], view.box.max[1] - view.box.min[1]);

export const isArcOf = (t: { centre: Vec2; radius: number }, centre: Vec2, radius: number, size: number): boolean =>
  Math.hypot(t.centre[0] - centre[0], t.centre[1] - centre[1]) < ON_STROKE * size &&
  Math.abs(t.radius - radius) < ON_STROKE * size;
