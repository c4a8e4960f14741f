import { add2, dot2, scale2, type Vec2 } from "@/core/geometry/vector";
import type { Mark } from "@/core/formats/drawing";
import { axisOf } from "@/core/kernel/carrier";
import { isParallel, isSquare } from "@/core/sizes/anchor";
import type { Size } from "@/core/sizes/size";
import { above, reachOf, readable, seenWay } from "./direction";
import type { SheetModel } from "./model";
import { isArcOf, isOnStroke, sizeOf } from "./seen";
import { project, type View } from "./views";

/** Where nothing says better a thread is so much wider than the bore it is cut into. */
const WIDER = 1.18;
const INCH = 25.4;

/** The outer diameter a thread's name tells, mm: M8, 1/4 UNC. */
function outerDiameter(name: string, core: number): number {
  const metric = /^M\s*(\d+(?:\.\d+)?)/i.exec(name);
  if (metric) return Number(metric[1]);
  const inch = /^(\d+)\/(\d+)/.exec(name);
  return inch ? (Number(inch[1]) / Number(inch[2])) * INCH : core * WIDER;
}

/**
 * The thin lines of threads (ISO 6410-1): along the bore where it is seen from the side, three quarters of a circle
 * where it is seen along its axis. @param place from the view's coordinates to the paper's
 */
export function threadMarks(
  model: SheetModel,
  sizes: readonly Size[],
  view: View,
  scale: number,
  place: (p: Vec2) => Vec2,
): Mark[] {
  if (view.name === "pictorial") return [];
  return sizes.flatMap((size) => {
    if (size.kind !== "thread") return [];
    return size.of.flatMap((face): Mark[] => {
      const c = model.body.on(face),
        axis = c && axisOf(c);
      if (c?.kind !== "cylinder" || !axis) return [];
      const radius = outerDiameter(size.name, 2 * c.radius) / 2,
        centre = project(view, axis.at);
      if (isParallel(axis.along, view.gaze.toViewer)) {
        const isSeen = view.strokes.some(
          (t) => t.kind === "arc" && !t.hidden && isArcOf(t, centre, c.radius, sizeOf(view)),
        );
        if (!isSeen) return [];
        const arc = { centre: place(centre), radius: radius * scale, from: QUARTER + OPEN, to: 4 * QUARTER - OPEN };
        return [{ mark: "arc", pen: "thin", ...arc }];
      }
      if (!isSquare(axis.along, view.gaze.toViewer)) return [];
      return alongBore(model, face, size.depth, radius, c.radius, view).map(([a, b, isHidden]) => ({
        mark: "line",
        pen: isHidden ? "hidden" : "thin",
        a: place(a),
        b: place(b),
      }));
    });
  });
}
const QUARTER = Math.PI / 2;
/** The open quarter is a little wider than a quarter. */
const OPEN = 0.09;

/** Both lines of a thread from the side, where the bore's own are drawn; from the outer end on. */
function alongBore(
  model: SheetModel,
  face: string,
  depth: number | undefined,
  radius: number,
  core: number,
  view: View,
): (readonly [Vec2, Vec2, boolean])[] {
  const line = axisOf(model.body.on(face)!)!,
    way = readable(seenWay(view.gaze, line.along)),
    side = above(way);
  const points = model.points(face).map((p) => project(view, p));
  if (!points.length) return [];
  const [from, to] = reachOf(points, way),
    level = dot2(project(view, line.at), side);
  const { min, max } = model.properties.box;
  const middle = dot2(project(view, [0, 1, 2].map((i) => (min[i]! + max[i]!) / 2) as never), way);
  const long = Math.min(depth ?? to - from, to - from);
  // it is cut from the end that lies further out
  const isFromEnd = Math.abs(to - middle) > Math.abs(from - middle);
  const [start, end] = isFromEnd ? [to - long, to] : [from, from + long];
  const on = (u: number, v: number): Vec2 => add2(scale2(way, u), scale2(side, level + v));
  return ([1, -1] as const).flatMap((sign) => {
    const isSeen = isOnStroke(view, on((start + end) / 2, sign * core));
    if (!isSeen && !view.hidden) return [];
    return [[on(start, sign * radius), on(end, sign * radius), !isSeen] as const];
  });
}
