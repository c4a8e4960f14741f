import { add2, dot2, scale2, type Vec2 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { goesRound } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "@/core/sizes/anchor";
import type { Size } from "@/core/sizes/size";
import { clippedSegment } from "./clip";
import { above, reachOf, readable, seenWay } from "./direction";
import type { SheetModel } from "./model";
import type { Segment } from "../plane";
import { NEAR } from "../tolerance";
import { isWithin, project, type View } from "./views";

/** Centre lines and pitch circles of a view; in its own coordinates, mm of the part. */
interface Centres {
  readonly lines: readonly Segment[];
  readonly circles: readonly { readonly centre: Vec2; readonly radius: number }[];
}

/** How far centre lines reach past what they belong to, mm of paper. */
const PAST = 3;

/** Axes as the view shows them: crosses where they point to the viewer, lines where they lie. */
export function centresOf(model: SheetModel, sizes: readonly Size[], view: View, scale: number): Centres {
  if (view.name === "pictorial" || view.isSlice) return { lines: [], circles: [] };
  const past = PAST / scale;
  const crosses = new Map<string, { at: Vec2; radius: number }>(),
    lying = new Map<string, { way: Vec2; level: number; from: number; to: number }>();
  const key = (...n: number[]) => n.map((v) => Math.round(v / (10 * NEAR))).join();
  for (const surface of model.body.surfaces) {
    const axis = axisOf(surface.carrier);
    if (!axis || !goesRound(surface)) continue;
    const at = project(view, axis.at);
    if (isParallel(axis.along, view.gaze.toViewer)) {
      const own = surface.carrier,
        rim = own.kind === "cylinder" ? own.radius : own.kind === "torus" ? own.major : 0;
      const known = crosses.get(key(...at));
      if (!known || known.radius < rim) crosses.set(key(...at), { at, radius: Math.max(rim, known?.radius ?? 0) });
    } else if (isSquare(axis.along, view.gaze.toViewer)) {
      const way = readable(seenWay(view.gaze, axis.along)),
        level = dot2(at, above(way));
      const points = model.points(surface.keys[0]!).map((p) => project(view, p));
      if (!points.length) continue;
      const [from, to] = reachOf(points, way),
        name = key(...way, level),
        known = lying.get(name);
      lying.set(name, {
        way,
        level,
        from: Math.min(from, known?.from ?? from),
        to: Math.max(to, known?.to ?? to),
      });
    }
  }
  const lines = [
    ...[...crosses.values()].flatMap(({ at: [x, y], radius }): Segment[] => {
      const l = radius + past;
      return [
        [
          [x - l, y],
          [x + l, y],
        ],
        [
          [x, y - l],
          [x, y + l],
        ],
      ];
    }),
    ...[...lying.values()].map(({ way, level, from, to }): Segment => {
      const on = (u: number): Vec2 => add2(scale2(way, u), scale2(above(way), level));
      return [on(from - past), on(to + past)];
    }),
  ];
  const shown = view.round || view.only ? lines.flatMap((l) => limitedTo(view, l)) : lines;
  return { lines: withoutCovered(shown), circles: pitchCircles(model, sizes, view) };
}

/** What of a centre line a detail or a partial view shows. */
const limitedTo = (view: View, [a, b]: Segment): Segment[] => {
  const fine = Math.min(view.box.max[0] - view.box.min[0], view.box.max[1] - view.box.min[1]);
  return clippedSegment(a, b, (p) => isWithin(view, p, fine * SLIGHTLY), fine);
};
/** Centre lines may reach past the edge of what is shown; share of its size. */
const SLIGHTLY = 0.02;

/** Lines that another covers are left out. */
const withoutCovered = (lines: readonly Segment[]): Segment[] =>
  lines.filter(
    ([a, b], n) =>
      !lines.some(([c, d], m) => {
        if (m === n) return false;
        const i = Math.abs(a[0] - b[0]) > Math.abs(a[1] - b[1]) ? 0 : 1,
          k = i === 0 ? 1 : 0;
        const isOnIt = Math.abs(c[k] - a[k]) < NEAR && Math.abs(d[k] - a[k]) < NEAR;
        const covers = c[i] <= a[i] + NEAR && d[i] >= b[i] - NEAR;
        const isSame = c[i] >= a[i] - NEAR && d[i] <= b[i] + NEAR;
        return isOnIt && covers && (!isSame || m < n);
      }),
  );

/** The circle that a ring of holes stands on, through every ring of three and more. */
function pitchCircles({ body }: SheetModel, sizes: readonly Size[], view: View): Centres["circles"] {
  return sizes.flatMap((s) => {
    if (s.kind !== "circle") return [];
    const axes = s.of.flatMap((f) => {
      const c = body.on(f);
      return c ? (axisOf(c) ?? []) : [];
    });
    const about = s.about === undefined ? undefined : body.on(s.about);
    if (!axes.length || !isParallel(axes[0]!.along, view.gaze.toViewer)) return [];
    const on = axes.map((a) => project(view, a.at));
    const middle = about && axisOf(about);
    const centre: Vec2 = middle
      ? project(view, middle.at)
      : [on.reduce((t, p) => t + p[0], 0) / on.length, on.reduce((t, p) => t + p[1], 0) / on.length];
    return [{ centre, radius: Math.hypot(on[0]![0] - centre[0], on[0]![1] - centre[1]) }];
  });
}
