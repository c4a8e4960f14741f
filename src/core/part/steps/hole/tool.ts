import { scale3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { TURN } from "@/core/geometry/segment";
import type { Kernel } from "@/core/kernel/opencascade";
import type { FaceName } from "@/core/naming/names";
import type { Solid } from "@/core/kernel/solid";
import { revolution } from "@/core/kernel/sweep";
import type { Outline } from "@/core/sketch/regions";

/** Sizes of one hole, mm and radians. The bottom is a cone of the whole angle `tip`, or flat. */
export interface Bore {
  readonly radius: number;
  readonly depth: number;
  readonly tip?: number;
  /** How far the tool reaches back from where it starts, mm. */
  readonly back: number;
  readonly head?: { readonly kind: "counterbore" | "countersink"; readonly radius: number; readonly depth: number };
}

/** How far a tool stands out of the face it drills into, so that no face of it lies on one of the part, mm. */
export const STAND_OUT = 1;

/**
 * The volume of a hole: half its section turned about its axis.
 * @param into unit direction into the material @param across any unit direction square to it
 * Faces are named step/ROLE/ID: bore, bottom, tip, counterbore, seat, countersink.
 */
export function drilled(kernel: Kernel, at: Vec3, into: Vec3, across: Vec3, b: Bore, step: string, id: string): Solid {
  const wide = b.head?.radius ?? b.radius,
    out = -b.back;
  // radius and depth; the tool begins above the face as wide as it opens there
  const corners: { at: Vec2; role: string }[] = [{ at: [0, out], role: "above" }];
  const to = (r: number, d: number, role: string) => {
    const last = corners[corners.length - 1]!;
    // a tool that does not stand out has nothing between its rim and the face
    if (last.at[0] === r && last.at[1] === d) last.role = role;
    else corners.push({ at: [r, d], role });
  };
  to(wide, out, b.head?.kind === "counterbore" ? "counterbore" : b.head ? "mouth" : "bore");
  if (b.head?.kind === "countersink") {
    to(wide, 0, "countersink");
    to(b.radius, b.head.depth, "bore");
  }
  if (b.head?.kind === "counterbore") {
    to(wide, b.head.depth, "seat");
    to(b.radius, b.head.depth, "bore");
  }
  if (b.tip === undefined) {
    to(b.radius, b.depth, "bottom");
    to(0, b.depth, "axis");
  } else {
    to(b.radius, b.depth, "tip");
    to(0, b.depth + b.radius / Math.tan(b.tip / 2), "axis");
  }
  const region: Outline = {
    outer: corners.map((c, i) => ({ kind: "line", curve: c.role, a: c.at, b: corners[(i + 1) % corners.length]!.at })),
    holes: [],
  };
  const solid = revolution(
    kernel,
    { origin: at, x: across, y: into },
    region,
    { at, along: scale3(into, -1) },
    0,
    TURN,
    step,
  );
  return {
    shape: solid.shape,
    names: solid.names.map((list) => list.map((n): FaceName => ({ step, role: n.of!, of: id }))),
  };
}
