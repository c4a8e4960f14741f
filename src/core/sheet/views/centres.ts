import {
  add2,
  add3,
  anyAcross,
  cross3,
  dot2,
  dot3,
  scale2,
  scale3,
  sub3,
  type Vec2,
  type Vec3,
} from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "@/core/sizes/anchor";
import { facesOfSize, type Size } from "@/core/sizes/size";
import { clippedSegment } from "./clip";
import { above, reachOf, readable, seenWay } from "./direction";
import type { SheetModel } from "./model";
import { isInSlice } from "./seen";
import type { Segment } from "../plane";
import { NEAR, WHOLE_TUBE } from "../tolerance";
import { isWithin, project, type View } from "./views";

/** Centre lines and circles of a view; in its own coordinates, mm of the part, radians. */
interface Centres {
  readonly lines: readonly Segment[];
  readonly arcs: readonly CentreArc[];
}
interface CentreArc {
  readonly centre: Vec2;
  readonly radius: number;
  readonly from: number;
  readonly to: number;
}

/** How far centre lines reach past what they belong to, mm of paper. */
const PAST = 3;
/** How far the arms reach of a cross at the middle of an arc that a size is told from, mm of paper. */
const SMALL = 2.5;

/** Two lines through a place: which ways they run, and how far to either side. */
interface Cross {
  readonly at: Vec2;
  readonly ways: readonly [Vec2, Vec2];
  readonly reach: Vec2;
}
const UPRIGHT: Cross["ways"] = [
  [1, 0],
  [0, 1],
];

const keyOf = (...n: number[]) => n.map((v) => Math.round(v / (10 * NEAR))).join();

/** Axes as the view shows them: crosses where they point to the viewer, lines where they lie; rings by their middle. */
export function centresOf(model: SheetModel, sizes: readonly Size[], view: View, scale: number): Centres {
  if (view.name === "pictorial") return { lines: [], arcs: [] };
  const past = PAST / scale;
  const crosses = new Map<string, Cross>(),
    lying = new Map<string, { way: Vec2; level: number; from: number; to: number }>();
  const give = (cross: Cross) => {
    const name = keyOf(...cross.at),
      known = crosses.get(name);
    if (!known || known.reach[0] < cross.reach[0]) crosses.set(name, cross);
  };
  const surfaces = model.body.surfaces.filter((s) => isInSlice(model, s, view));
  const pipes = surfaces.flatMap((s) => pipeOf(model, s, view, past) ?? []);
  for (const cross of [...pipes.flatMap((p) => p.crosses), ...heldCrosses(model, sizes, view, scale)]) give(cross);
  for (const surface of surfaces) {
    const axis = axisOf(surface.carrier);
    if (!axis || !goesRound(surface)) continue;
    const at = project(view, axis.at);
    if (isParallel(axis.along, view.gaze.toViewer)) give(wholeCross(surface.carrier, view, at, past));
    else if (isSquare(axis.along, view.gaze.toViewer)) {
      const way = readable(seenWay(view.gaze, axis.along)),
        level = dot2(at, above(way));
      const points = model.points(surface.keys[0]!).map((p) => project(view, p));
      if (!points.length) continue;
      const [from, to] = reachOf(points, way),
        name = keyOf(...way, level),
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
    ...[...crosses.values()].flatMap(armsOf),
    ...[...lying.values()].map(({ way, level, from, to }): Segment => {
      const on = (u: number): Vec2 => add2(scale2(way, u), scale2(above(way), level));
      return [on(from - past), on(to + past)];
    }),
  ];
  const shown = view.round || view.only ? lines.flatMap((l) => limitedTo(view, l)) : lines;
  const arcs = [...pitchCircles(model, sizes, view), ...pipes.flatMap((p) => p.arcs)];
  return { lines: withoutCovered(shown), arcs };
}

const armsOf = ({ at, ways, reach }: Cross): Segment[] =>
  ways.map((way, i): Segment => [add2(at, scale2(way, -reach[i]!)), add2(at, scale2(way, reach[i]!))]);

/** Through the middle of what goes all round: upright and level, of an ellipse along its axes. */
function wholeCross(carrier: Carrier, view: View, at: Vec2, past: number): Cross {
  if (carrier.kind === "elliptic") {
    const long = seenWay(view.gaze, carrier.long);
    return { at, ways: [long, [-long[1], long[0]]], reach: [carrier.halves[0] + past, carrier.halves[1] + past] };
  }
  const radius = rimOf(carrier) + past;
  return { at, ways: UPRIGHT, reach: [radius, radius] };
}
function rimOf(carrier: Carrier): number {
  if (carrier.kind === "torus") return carrier.major;
  return carrier.kind === "cylinder" ? carrier.radius : 0;
}

/** Crosses at the middles of arcs and balls that sizes are told from, so that no extension line begins in the air. */
function heldCrosses({ body }: SheetModel, sizes: readonly Size[], view: View, scale: number): Cross[] {
  return sizes.flatMap((size) => {
    if (!HELD.has(size.kind)) return [];
    return facesOfSize(size).flatMap((face): Cross[] => {
      const c = body.on(face),
        middle = c && middleOf(c, view);
      if (!c || !middle) return [];
      // the ends of a slot are as good as holes
      const reach = size.kind === "slot" && c.kind === "cylinder" ? c.radius + PAST / scale : SMALL / scale;
      return [{ at: middle, ways: UPRIGHT, reach: [reach, reach] }];
    });
  });
}
const HELD: ReadonlySet<Size["kind"]> = new Set<Size["kind"]>(["distance", "slot", "turn"]);

function middleOf(c: Carrier, view: View): Vec2 | undefined {
  if (c.kind === "sphere") return project(view, c.centre);
  const axis = c.kind === "cylinder" || c.kind === "elliptic" ? axisOf(c) : undefined;
  return axis && isParallel(axis.along, view.gaze.toViewer) ? project(view, axis.at) : undefined;
}

/**
 * A ring whose tube is whole and which ends: its middle line as an arc, and crosses where a view looks into it.
 * @param past how far lines reach beyond, mm of the part
 */
export function pipeOf(model: SheetModel, { carrier, area, keys }: Surface, view: View, past: number) {
  if (carrier.kind !== "torus") return undefined;
  const { centre, axis, major, minor } = carrier,
    points = model.points(keys[0]!);
  if (!points.length) return undefined;
  const x = anyAcross(axis),
    y = cross3(axis, x);
  const turns = points.map((p) => Math.atan2(dot3(sub3(p, centre), y), dot3(sub3(p, centre), x))).sort((a, b) => a - b);
  // from behind the widest gap all round to before it
  const gaps = turns.map((t, i) => (turns[i + 1] ?? turns[0]! + 2 * Math.PI) - t),
    widest = gaps.indexOf(Math.max(...gaps));
  const from = turns[(widest + 1) % turns.length]!,
    span = 2 * Math.PI - gaps[widest]!;
  const whole = 2 * Math.PI * minor * major * span;
  if (Math.abs(area - whole) > WHOLE_TUBE * whole) return undefined;
  const out = (turn: number): Vec3 => add3(scale3(x, Math.cos(turn)), scale3(y, Math.sin(turn)));
  const crosses = [from, from + span].flatMap((turn): Cross[] => {
    const along = cross3(axis, out(turn));
    if (!isParallel(along, view.gaze.toViewer)) return [];
    const reach = minor + past;
    return [{ at: project(view, add3(centre, scale3(out(turn), major))), ways: UPRIGHT, reach: [reach, reach] }];
  });
  if (!isParallel(axis, view.gaze.toViewer)) return { crosses, arcs: [] };
  const at = project(view, centre),
    seen = (turn: number): number => {
      const [u, v] = seenWay(view.gaze, out(turn));
      return Math.atan2(v, u);
    };
  const isForward = dot3(axis, view.gaze.toViewer) > 0,
    start = seen(isForward ? from : from + span);
  return {
    crosses,
    arcs: [{ centre: at, radius: major, from: start - past / major, to: start + span + past / major }],
  };
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
function pitchCircles({ body }: SheetModel, sizes: readonly Size[], view: View): CentreArc[] {
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
    const radius = Math.hypot(on[0]![0] - centre[0], on[0]![1] - centre[1]);
    return [{ centre, radius, from: 0, to: 2 * Math.PI }];
  });
}
