import { isWhole, segmentAt } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "@/core/sketch/curves/registry";
import { curveById, curveOf, pointAt, typeOf, type Constraint, type Sketch } from "@/core/sketch/sketch";

export const GLYPHS: Record<Constraint["kind"], string> = {
  coincident: "•",
  horizontal: "─",
  vertical: "│",
  parallel: "∥",
  perpendicular: "⊥",
  equal: "=",
  concentric: "◎",
  midpoint: "M",
  "point-on-curve": "×",
  fixed: "▣",
  collinear: "┄",
  tangent: "⌒",
  curvature: "≈",
  symmetric: "⋈",
  spaced: "⋯",
  turned: "↻",
};

/** Where a curve's or point's mark stands: beside its middle. */
function anchor(s: Sketch, ref: string): Vec2 {
  if (ref === "x-axis" || ref === "y-axis" || ref === "origin") return [0, 0];
  const type = typeOf(s, ref);
  if (type === "point") return pointAt(s, ref);
  const shape = segmentOf(curveById(s, curveOf(ref))!)!;
  return segmentAt(shape, isWhole(shape) ? 0.125 : 0.5);
}

export interface Mark {
  readonly id: string;
  readonly kind: Constraint["kind"];
  readonly at: Vec2;
  /** Marks at one place stand side by side: the how-manieth. */
  readonly place: number;
}

/**
 * One mark per constraint, at its first argument. Joined ends speak for themselves and have none, nor has what holds
 * a polygon or a pattern together: its group is told in the panel.
 */
export function marksOf(s: Sketch): Mark[] {
  const used = new Map<string, number>();
  const groups = (s.groups ?? []).map((g) => new Set([...g.source, ...g.made]));
  const isQuiet = (c: Constraint) =>
    c.kind === "coincident" ||
    c.kind === "spaced" ||
    c.kind === "turned" ||
    groups.some((g) => c.of.every((r) => g.has(curveOf(r))));
  return s.constraints
    .filter((c) => !isQuiet(c))
    .map((relation) => {
      const ref =
        relation.kind === "midpoint" || relation.kind === "point-on-curve"
          ? relation.of[0]!
          : (relation.of.find((r) => !r.endsWith("-axis")) ?? relation.of[0]!);
      const at = anchor(s, ref);
      const key = at.map((v) => v.toFixed(4)).join();
      const place = used.get(key) ?? 0;
      used.set(key, place + 1);
      return { id: relation.id, kind: relation.kind, at, place };
    });
}
