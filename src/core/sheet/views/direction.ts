import { dot2, dot3, scale2, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { ALONG_VIEW, LEVEL } from "../tolerance";
import { upOf, type View } from "./views";
import type { Gaze } from "@/core/kernel/scene";

/** A direction in space as a view shows it, shortened where it leans. */
export const seenWay = (g: Gaze, d: Vec3): Vec2 => [dot3(d, g.right), dot3(d, upOf(g))];

/** The way a number is read along: to the right, and straight up where it stands. */
export const readable = (d: Vec2): Vec2 => (d[0] < -LEVEL || (Math.abs(d[0]) <= LEVEL && d[1] < 0) ? scale2(d, -1) : d);

/** Square to a way of reading: what is above the line. */
export const above = (d: Vec2): Vec2 => [-d[1], d[0]];

/** The direction a straight distance is measured along, in a view; undefined where the view shortens it. */
export function alongIn(view: View, d: Vec3): Vec2 | undefined {
  const seen = seenWay(view.gaze, d),
    l = Math.hypot(...seen);
  if (l < ALONG_VIEW) return undefined;
  const way = readable(scale2(seen, 1 / l));
  // what is level but for noise is level
  if (Math.abs(way[1]) < LEVEL) return [1, 0];
  return Math.abs(way[0]) < LEVEL ? [0, 1] : way;
}

/** How far a way of reading is turned from level, degrees, counter-clockwise. */
export const turnOf = (d: Vec2): number => (Math.atan2(d[1], d[0]) * 180) / Math.PI;

export const isUpright = (d: Vec2): boolean => Math.abs(d[0]) < LEVEL || Math.abs(d[1]) < LEVEL;

/** How far something reaches along a direction. */
export function reachOf(points: readonly Vec2[], along: Vec2): readonly [number, number] {
  const at = points.map((p) => dot2(p, along));
  return [Math.min(...at), Math.max(...at)];
}
