import type { Vec2 } from "@/core/geometry/vector";
import { AIR, type Grid, type Track } from "./grid";
import type { Paper } from "./paper";
import { heightOf, joinedBoxes, widthOf, type Box } from "../plane";
import { EDGE, type Standing } from "./standing";
import type { View } from "../views/views";

/** Where two views or one leave room at their side, the pictorial view has a column of its own there. */
export function pictureBeside(
  view: View,
  spare: number,
  high: number,
  scale: number,
): { readonly view: View; readonly scale: number; readonly track: Track } | undefined {
  const most = Math.min(scale, (spare - 2 * AIR) / widthOf(view.box), (high * PICTURE_SHARE) / heightOf(view.box));
  const size = most * widthOf(view.box);
  if (most <= 0 || Math.max(size, most * heightOf(view.box)) < LEAST_PICTURE) return undefined;
  return { view, scale: most, track: { from: 0, size, before: 0, after: 0 } };
}
const PICTURE_SHARE = 0.8;

/** The pictorial view in the largest place that is free, at no more than the scale of the others. */
export function pictureOf(
  view: View,
  grid: Grid,
  views: readonly Standing[],
  paper: Paper,
  high: number,
  scale: number,
): Standing | undefined {
  const [l, t, r] = paper.frame;
  const taken = grid.cells.map((c, i): Box => {
    const [x, y] = views[i]!.corner;
    return { min: [x + c.extent.min[0], y - c.extent.max[1]], max: [x + c.extent.max[0], y - c.extent.min[1]] };
  });
  // only where three views leave a corner empty does it stand among them
  const among = views.length > 2 ? taken : [joinedBoxes(taken)];
  const place = largestFree({ min: [l + EDGE, t + EDGE], max: [r - EDGE, t + high - EDGE] }, among);
  if (!place) return undefined;
  const [w, h] = [widthOf(place) - AIR, heightOf(place) - AIR];
  const most = Math.min(w / widthOf(view.box), h / heightOf(view.box), scale);
  if (most * Math.max(widthOf(view.box), heightOf(view.box)) < LEAST_PICTURE) return undefined;
  const corner: Vec2 = [
    (place.min[0] + place.max[0] - widthOf(view.box) * most) / 2,
    (place.min[1] + place.max[1] + heightOf(view.box) * most) / 2,
  ];
  return { view, scale: most, corner, placed: [] };
}
/** A pictorial view that came out smaller would show nothing, mm. */
const LEAST_PICTURE = 28;

/** The largest rectangle that none of the boxes reaches into, its sides along theirs. */
export function largestFree(room: Box, taken: readonly Box[]): Box | undefined {
  const xs = [room.min[0], room.max[0], ...taken.flatMap((b) => [b.min[0], b.max[0]])].sort((a, b) => a - b);
  const ys = [room.min[1], room.max[1], ...taken.flatMap((b) => [b.min[1], b.max[1]])].sort((a, b) => a - b);
  let best: Box | undefined,
    most = 0;
  for (const [i, x0] of xs.entries())
    for (const x1 of xs.slice(i + 1))
      for (const [k, y0] of ys.entries())
        for (const y1 of ys.slice(k + 1)) {
          if (x0 < room.min[0] || x1 > room.max[0] || y0 < room.min[1] || y1 > room.max[1]) continue;
          // a long strip holds no picture
          const worth = Math.min(x1 - x0, y1 - y0) ** 2 * Math.sqrt((x1 - x0) * (y1 - y0));
          if (worth <= most) continue;
          const isFree = taken.every((b) => b.min[0] >= x1 || b.max[0] <= x0 || b.min[1] >= y1 || b.max[1] <= y0);
          if (isFree) [best, most] = [{ min: [x0, y0], max: [x1, y1] }, worth];
        }
  return best;
}
