import { cross3, dot3, unit3, type Vec2, type Vec3, eachAxis2 } from "@/core/geometry/vector";
import { sceneOf, type Gaze } from "@/core/kernel/scene";
import { isEmpty } from "@/core/kernel/boolean";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { sectioned, type Cutter } from "@/core/kernel/section";
import type { Solid } from "@/core/kernel/solid";
import { formatFace } from "@/core/naming/names";
import { Sight } from "@/core/measure/sight";
import { clippedStroke, movedStroke } from "./clip";
import { farPoints, strokeSegments } from "./obstacles";
import { cleanStrokes, thinned, type Stroke } from "./outline";
import { boxAround, boxCorners, distanceToSegment, heightOf, widthOf, type Box, type Segment } from "../plane";
import { NEAR } from "../tolerance";

export type Projection = "first-angle" | "third-angle";
/** What a view is called; the Bench turns the model to it by this name. */
export type ViewName =
  | "front"
  | "top"
  | "left"
  | "right"
  | "bottom"
  | "rear"
  | "long"
  | "start"
  | "end"
  | "pictorial"
  | "section"
  | "detail"
  | "auxiliary";

export const upOf = (g: Gaze): Vec3 => cross3(g.toViewer, g.right);

/** The principal views (ISO 5456-2) and the pictorial one. */
export const GAZES = {
  front: { toViewer: [0, -1, 0], right: [1, 0, 0] },
  top: { toViewer: [0, 0, 1], right: [1, 0, 0] },
  left: { toViewer: [-1, 0, 0], right: [0, -1, 0] },
  right: { toViewer: [1, 0, 0], right: [0, 1, 0] },
  bottom: { toViewer: [0, 0, -1], right: [1, 0, 0] },
  rear: { toViewer: [0, 1, 0], right: [-1, 0, 0] },
  pictorial: { toViewer: unit3([1, -1, 1]), right: unit3([1, 1, 0]) },
} as const satisfies Partial<Record<ViewName, Gaze>>;

/** What an interrupted view leaves out, of its own x or y; mm of the part. */
export interface Break {
  readonly along: "x" | "y";
  readonly from: number;
  readonly to: number;
}

/** A view as it is meant: from where, and what is taken away first. */
export interface ViewPlan {
  /** Tells the views of a Sheet apart. */
  readonly key: string;
  readonly name: ViewName;
  readonly gaze: Gaze;
  readonly hidden: boolean;
  readonly tangent?: boolean;
  /** Its own; left out: that of the Sheet. */
  readonly scale?: number;
  /** Pieces taken away before. */
  readonly cutters?: readonly Cutter[];
  /** Only half of the view is a section: what lies on its axis is no edge. */
  readonly isHalf?: boolean;
  /** Only what is cut is drawn. */
  readonly isSlice?: boolean;
  /** Cutters are local: their bounds are drawn thin. */
  readonly isLocal?: boolean;
  /** Levels of its own x or y where its cutting plane steps: nothing is drawn there. */
  readonly steps?: { readonly axis: 0 | 1; readonly at: readonly number[] };
  /** The letter of its cutting line, or of the circle it enlarges. */
  readonly letter?: string;
  /** The view it is taken from, and the line it is cut along in that view. */
  readonly of?: string;
  readonly path?: readonly Vec2[];
  /** A detail: the circle it shows of the view it is taken from. */
  readonly round?: { readonly centre: Vec2; readonly radius: number };
  readonly only?: Box;
  readonly breaks?: readonly Break[];
}

/** A region that was cut: its bounds as short pieces in the view's coordinates, its area, and the body it is of. */
interface CutRegion {
  readonly bounds: readonly Segment[];
  readonly area: number;
  readonly body: number;
}

/** A view with its lines, in its own coordinates: mm of the part, y upwards. */
export interface View extends ViewPlan {
  readonly strokes: readonly Stroke[];
  readonly cuts: readonly CutRegion[];
  /** Its lines again by the faces of the reference they belong to: what a size measures can be shown. */
  readonly byFace: readonly FaceLine[];
  readonly box: Box;
  /** What was to be cut could not be, or was not met, or nothing is left of the part. */
  readonly trouble?: "uncut" | "missed" | "nothing";
}
interface FaceLine {
  readonly faces: readonly string[];
  readonly points: readonly Vec2[];
}

/** A point in space to a view's coordinates, mm; what an interrupted view leaves out is closed up. */
export const project = (v: Pick<ViewPlan, "gaze" | "breaks">, p: Vec3): Vec2 =>
  closedUp(v.breaks, [dot3(p, v.gaze.right), dot3(p, upOf(v.gaze))]);

/** What a gap keeps of the length it stands for. */
const GAP_KEPT = 0.1;

/** Where the gaps of an interrupted view are drawn, in its own coordinates. */
export const drawnGaps = ({ breaks = [] }: Pick<ViewPlan, "breaks">): readonly Break[] =>
  breaks.map((b) => {
    const [from, to] = [b.from, b.to].map((v) => {
      const at = closedUp(breaks, b.along === "x" ? [v, 0] : [0, v]);
      return at[b.along === "x" ? 0 : 1];
    }) as [number, number];
    return { along: b.along, from, to };
  });

function closedUp(breaks: readonly Break[] | undefined, p: Vec2): Vec2 {
  if (!breaks?.length) return p;
  return eachAxis2((i) => {
    const own = breaks.filter((b) => b.along === (i === 0 ? "x" : "y"));
    return own.reduce((at, b) => {
      const within = Math.min(Math.max(p[i] - b.from, 0), b.to - b.from);
      return at - within * (1 - GAP_KEPT);
    }, p[i]);
  });
}

const isLeftOut = (breaks: readonly Break[], p: Vec2): boolean =>
  breaks.some((b) => {
    const at = p[b.along === "x" ? 0 : 1];
    return at > b.from && at < b.to;
  });

/** Whether a place of the drawn view is shown at all: within its circle or its part, in no gap. */
export function isWithin(v: Pick<ViewPlan, "round" | "only" | "breaks">, p: Vec2, by = NEAR): boolean {
  if (isLeftOut(drawnGaps(v), p)) return false;
  if (v.round && Math.hypot(p[0] - v.round.centre[0], p[1] - v.round.centre[1]) > v.round.radius + by) return false;
  const { only } = v;
  return (
    !only ||
    (p[0] >= only.min[0] - by && p[0] <= only.max[0] + by && p[1] >= only.min[1] - by && p[1] <= only.max[1] + by)
  );
}

/** What is seen of a body is asked from several sides. */
const sights = new WeakMap<Solid, Sight>();
function sightOf(kernel: Kernel, solid: Solid): Sight {
  let sight = sights.get(solid);
  if (!sight) sights.set(solid, (sight = new Sight(sceneOf(kernel, solid))));
  return sight;
}

/** Draws a view of a body. @param bodies one by one, where there are several: hatched each its own way */
export function drawnView(kernel: Kernel, solid: Solid, plan: ViewPlan, bodies: readonly Solid[] = [solid]): View {
  const { cutters, gaze } = plan;
  const opened = cutters?.length ? cutOpen(kernel, solid, cutters) : undefined;
  if (opened === "uncut") {
    const { cutters: _, ...whole } = plan;
    return { ...drawnView(kernel, solid, whole), ...plan, trouble: "uncut" };
  }
  if (opened && isEmpty(kernel, opened.solid)) {
    kernel.release(opened.solid.shape);
    return { ...limited(plan, [], [], []), trouble: "nothing" };
  }
  const flat = (p: Vec3): Vec2 => project({ gaze }, p);
  const regions = opened ? cutRegions(kernel, bodies.length > 1 ? bodies : undefined, opened.faces, plan, flat) : [];
  const edges = plan.isSlice
    ? (opened?.faces ?? []).flatMap((f) => f.edges.map((e) => ({ points: e.map(flat), hidden: false })))
    : sightOf(kernel, opened?.solid ?? solid).lines(gaze, { hidden: plan.hidden, tangent: plan.tangent === true });
  if (opened) kernel.release(opened.solid.shape);
  const isTangent = (e: (typeof edges)[number]) => "tangent" in e && e.tangent === true;
  const sharp = cleanStrokes(edges.filter((e) => !isTangent(e))).filter((s) => !isNoEdge(plan, s));
  const tangent = cleanStrokes(edges.filter(isTangent)).map((s): Stroke => ({ ...s, tangent: true }));
  const broken = plan.isLocal ? localBounds(plan) : [];
  const strokes = [...sharp, ...tangent].map((s) => (liesOn(broken, s) ? { ...s, tangent: true as const } : s));
  const names = (opened?.solid ?? solid).names.map((list) => list.map(formatFace));
  const byFace = edges.flatMap((e) => {
    const faces = ("faces" in e ? (e.faces ?? []) : []).flatMap((i) => names[i] ?? []);
    return faces.length ? [{ faces, points: thinned(e.points) }] : [];
  });
  const isMissed = plan.path !== undefined && regions.length === 0;
  return { ...limited(plan, strokes, regions, byFace), ...(isMissed && { trouble: "missed" as const }) };
}

/** A section along a line that crosses itself, or through a place the kernel does not manage, is no section. */
function cutOpen(kernel: Kernel, solid: Solid, cutters: readonly Cutter[]): ReturnType<typeof sectioned> | "uncut" {
  try {
    return sectioned(kernel, solid, cutters);
  } catch (e) {
    if (e instanceof KernelFault) return "uncut";
    throw e;
  }
}

function cutRegions(
  kernel: Kernel,
  bodies: readonly Solid[] | undefined,
  all: ReturnType<typeof sectioned>["faces"],
  plan: ViewPlan,
  flat: (p: Vec3) => Vec2,
): CutRegion[] {
  const region =
    (body: number) =>
    (f: (typeof all)[number]): CutRegion => ({
      bounds: f.edges.flatMap((e) => e.slice(1).map((b, i): Segment => [flat(e[i]!), flat(b)])),
      area: f.area,
      body,
    });
  if (!bodies) return all.map(region(0));
  return bodies.flatMap((b, i) => {
    const one = sectioned(kernel, b, plan.cutters!);
    kernel.release(one.solid.shape);
    return one.faces.map(region(i));
  });
}

/** Lines that a section makes where it is none: on the axis of a half section, where a cutting plane steps. */
function isNoEdge(plan: ViewPlan, s: Stroke): boolean {
  if (s.kind !== "line") return false;
  const axis = plan.isHalf ? dot3(plan.cutters![0]!.frame.origin, upOf(plan.gaze)) : undefined;
  if (axis !== undefined && Math.abs(s.a[1] - axis) < NEAR && Math.abs(s.b[1] - axis) < NEAR) return true;
  const { steps } = plan;
  return !!steps?.at.some((v) => Math.abs(s.a[steps.axis] - v) < NEAR && Math.abs(s.b[steps.axis] - v) < NEAR);
}

const localBounds = ({ cutters = [], gaze }: ViewPlan): Segment[] =>
  cutters.flatMap(({ frame, outline }) => {
    const at = outline.map((p) =>
      project({ gaze }, [0, 1, 2].map((i) => frame.origin[i]! + frame.x[i]! * p[0] + frame.y[i]! * p[1]) as never),
    );
    return at.map((a, i): Segment => [a, at[(i + 1) % at.length]!]);
  });

const liesOn = (bounds: readonly Segment[], s: Stroke): boolean =>
  bounds.length > 0 &&
  strokeSegments(s).every(([a, b]) => [a, b].every((p) => bounds.some((t) => distanceToSegment(p, t) < NEAR)));

/** What a partial, enlarged or interrupted view shows of its lines. */
function limited(
  plan: ViewPlan,
  strokes: readonly Stroke[],
  cuts: readonly CutRegion[],
  lines: readonly FaceLine[],
): View {
  const shown = shownStrokes(plan, strokes);
  const close = (p: Vec2) => closedUp(plan.breaks, p);
  // bounds of what is cut stay whole: only their hatch is limited, where it is drawn
  const regions = cuts.map((c) => ({ ...c, bounds: c.bounds.map(([a, b]): Segment => [close(a), close(b)]) }));
  const byFace = lines.flatMap(({ faces, points }) => {
    const drawn = points.map(close);
    return drawn.every((p) => isWithin(plan, p)) ? [{ faces, points: drawn }] : [];
  });
  return { ...plan, strokes: shown, cuts: regions, byFace, box: boxOf(plan, shown) };
}

function shownStrokes(plan: ViewPlan, all: readonly Stroke[]): readonly Stroke[] {
  const { breaks, round, only } = plan;
  let strokes = all;
  if (breaks?.length) {
    const fine = Math.min(...breaks.map((b) => b.to - b.from));
    strokes = strokes
      .flatMap((s) => clippedStroke(s, (p) => !isLeftOut(breaks, p), fine))
      .map((s) => movedStroke(s, (p) => closedUp(breaks, p)));
  }
  if (!round && !only) return strokes;
  const fine = round ? round.radius : Math.min(widthOf(only!), heightOf(only!));
  const { breaks: _, ...unbroken } = plan;
  return strokes.flatMap((s) => clippedStroke(s, (p) => isWithin(unbroken, p, 0), fine));
}

function boxOf({ round, only }: ViewPlan, strokes: readonly Stroke[]): Box {
  if (round) {
    const { centre: c, radius: r } = round;
    return { min: [c[0] - r, c[1] - r], max: [c[0] + r, c[1] + r] };
  }
  const all = boxAround(strokes.flatMap(farPoints));
  if (strokes.length) return all;
  return only ?? boxAround(boxCorners({ min: [0, 0], max: [1, 1] }));
}

/** A detail: what a circle shows of another view, to be drawn larger. */
export function detailView(plan: ViewPlan & Required<Pick<ViewPlan, "round">>, parent: View): View {
  const view = limited({ ...plan, breaks: undefined as never }, parent.strokes, parent.cuts, parent.byFace);
  return { ...view, ...(parent.breaks && { breaks: parent.breaks }) };
}
