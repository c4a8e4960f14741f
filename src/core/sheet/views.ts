import { cross3, dot3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { projectedEdges, type Gaze } from "@/core/kernel/hidden-lines";
import type { Kernel } from "@/core/kernel/opencascade";
import { sectioned, type CutFace, type Cutter } from "@/core/kernel/section";
import type { Solid } from "@/core/kernel/solid";
import { strokeSegments } from "./obstacles";
import { cleanStrokes, type Stroke } from "./outline";
import { boxAround, type Box } from "./plane";
import { NEAR } from "./tolerance";

export type Projection = "first-angle" | "third-angle";
/** What a view is called; the Bench turns the model to it by this name. */
export type ViewName = "front" | "top" | "left" | "right" | "long" | "start" | "end" | "pictorial";

export const upOf = (g: Gaze): Vec3 => cross3(g.toViewer, g.right);
/** A point in space to view coordinates, mm. */
export const project = (g: Gaze, p: Vec3): Vec2 => [dot3(p, g.right), dot3(p, upOf(g))];

/** The principal views (ISO 5456-2) and the pictorial one. */
export const GAZES: Record<Exclude<ViewName, "long" | "start" | "end">, Gaze> = {
  front: { toViewer: [0, -1, 0], right: [1, 0, 0] },
  top: { toViewer: [0, 0, 1], right: [1, 0, 0] },
  left: { toViewer: [-1, 0, 0], right: [0, -1, 0] },
  right: { toViewer: [1, 0, 0], right: [0, 1, 0] },
  pictorial: { toViewer: unit3([1, -1, 1]), right: unit3([1, 1, 0]) },
};

/** A view as it is meant: from where, and what is taken away first. */
export interface ViewPlan {
  readonly name: ViewName;
  readonly gaze: Gaze;
  /** A piece taken away before; the view then shows no hidden lines. */
  readonly cut?: Cutter;
  /** Only half of the view is a section: what lies on its axis is no edge. */
  readonly isHalf?: boolean;
  /** The letter of its cutting line. */
  readonly letter?: string;
  readonly hidden: boolean;
}

/** A view with its lines, in its own coordinates: mm of the part, y upwards. */
export interface View extends ViewPlan {
  readonly strokes: readonly Stroke[];
  readonly cuts: readonly CutFace[];
  readonly box: Box;
}

/** Draws a view of a body. */
export function drawnView(kernel: Kernel, solid: Solid, plan: ViewPlan): View {
  const opened = plan.cut && sectioned(kernel, solid, plan.cut);
  const isPictorial = plan.name === "pictorial";
  const edges = projectedEdges(kernel, opened?.solid ?? solid, plan.gaze, {
    hidden: plan.hidden && !opened,
    tangent: isPictorial,
  });
  if (opened) kernel.release(opened.solid.shape);
  const all = cleanStrokes(edges.filter((e) => !e.tangent));
  const axis = plan.isHalf ? project(plan.gaze, plan.cut!.frame.origin)[1] : undefined;
  const isOnAxis = (s: Stroke) =>
    axis !== undefined && s.kind === "line" && Math.abs(s.a[1] - axis) < NEAR && Math.abs(s.b[1] - axis) < NEAR;
  const tangent = cleanStrokes(edges.filter((e) => e.tangent)).map((s): Stroke => ({ ...s, tangent: true }));
  const strokes = [...all.filter((s) => !isOnAxis(s)), ...tangent];
  const cuts = (opened?.faces ?? []).map((f) => ({ ...f, bounds: f.bounds.map(flatOn(plan)) }));
  return { ...plan, strokes, cuts, box: boxAround(strokes.flatMap((s) => strokeSegments(s).flat())) };
}

/** Coordinates of the cutting plane to those of the view: they share their directions. */
const flatOn =
  ({ cut, gaze }: ViewPlan) =>
  ([a, b]: readonly [Vec2, Vec2]): readonly [Vec2, Vec2] => {
    const [x, y] = project(gaze, cut!.frame.origin);
    return [
      [a[0] + x, a[1] + y],
      [b[0] + x, b[1] + y],
    ];
  };
