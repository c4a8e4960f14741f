import { cross3, dot3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Gaze } from "@/core/kernel/hidden-lines";

export type Projection = "first-angle" | "third-angle";
export type ViewName = "front" | "top" | "side" | "pictorial";

/**
 * The side view each projection asks for (ISO 5456-2): first angle shows the left side, third angle the right, both
 * at the right of the front view.
 */
export const GAZES = (projection: Projection): Record<ViewName, Gaze> => ({
  front: { toViewer: [0, -1, 0], right: [1, 0, 0] },
  top: { toViewer: [0, 0, 1], right: [1, 0, 0] },
  side:
    projection === "first-angle"
      ? { toViewer: [-1, 0, 0], right: [0, -1, 0] }
      : { toViewer: [1, 0, 0], right: [0, 1, 0] },
  pictorial: { toViewer: unit3([1, -1, 1]), right: unit3([1, 1, 0]) },
});

export const upOf = (g: Gaze): Vec3 => cross3(g.toViewer, g.right);
/** A point in space to view coordinates, mm. */
export const project = (g: Gaze, p: Vec3): Vec2 => [dot3(p, g.right), dot3(p, upOf(g))];
