import { distance2, dot3, type Vec2 } from "@/core/geometry/vector";
import { onCut } from "@/core/kernel/section";
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
  const seen = all.filter((p) => isOnLineOf(model, face, view, p));
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

/** On a line of the face itself: what lies behind the outline of another is not seen there. */
function isOnLineOf(model: SheetModel, face: string, view: View, p: Vec2): boolean {
  if (!isOnStroke(view, p)) return false;
  const surface = surfaceOf(model, face);
  // of what is cut alone no line is known by its face
  if (view.isSlice) return !!surface && isInSlice(model, surface, view);
  const keys = surface?.keys ?? [face],
    near = ON_STROKE * sizeOf(view);
  // a line that runs to the viewer is a point, on whatever outline it lies
  const own = view.byFace.filter((l) => l.faces.some((f) => keys.includes(f)) && lengthOf(l.points) > near);
  return own.some((l) => l.points.some((q, i) => i > 0 && distanceToSegment(p, [l.points[i - 1]!, q]) < near));
}
/** Of what only a cut is shown, all that the cut meets; of others everything. */
export function isInSlice(model: SheetModel, s: Surface, { isSlice, cutters, gaze, steps }: View): boolean {
  const [cutter] = cutters ?? [];
  if (!isSlice || !cutter) return true;
  if (steps) return false;
  const level = dot3(onCut(cutter), gaze.toViewer),
    depths = s.keys.flatMap((k) => model.points(k)).map((p) => dot3(p, gaze.toViewer));
  return Math.min(...depths) < level && level < Math.max(...depths);
}

const lengthOf = (points: readonly Vec2[]): number =>
  points.reduce((sum, p, i) => (i ? sum + distance2(points[i - 1]!, p) : 0), 0);
export const sizeOf = (view: View) => Math.hypot(view.box.max[0] - view.box.min[0], view.box.max[1] - view.box.min[1]);

export const isArcOf = (t: { centre: Vec2; radius: number }, centre: Vec2, radius: number, size: number): boolean =>
  Math.hypot(t.centre[0] - centre[0], t.centre[1] - centre[1]) < ON_STROKE * size &&
  Math.abs(t.radius - radius) < ON_STROKE * size;
