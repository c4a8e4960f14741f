import { COINCIDENT } from "@/core/geometry/tolerance";
import { headingAt, isWhole } from "@/core/geometry/segment";
import { distance2, mid2, type Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "@/core/sketch/curves/registry";
import { pointAt, type Constraint, type Sketch } from "@/core/sketch/sketch";
import { finds } from "./finding";
import { hitAt } from "./hit";

/** A place found while drawing, with what it would be tied to. `of` receives the reference of the point being drawn. */
export interface Snap {
  readonly at: Vec2;
  readonly label: string;
  readonly ties: readonly { readonly kind: Constraint["kind"]; readonly of: (point: string) => string[] }[];
}

const MIDPOINT_PIXELS = 9;

/** Finds what the pointer means: a point, a midpoint, a curve. Nothing when `off` (the held key). */
export function snapPoint(sketch: Sketch, p: Vec2, pixel: number, off: boolean): Snap {
  const nothing: Snap = { at: p, label: "", ties: [] };
  if (off) return nothing;
  const hit = hitAt(sketch, p, pixel);
  if (hit?.kind === "point" && finds("point"))
    return {
      at: hit.at,
      label: hit.ref === "origin" ? "origin" : /\.centre$/.test(hit.ref) ? "centre" : "point",
      ties: [{ kind: "coincident", of: (ref) => [ref, hit.ref] }],
    };
  if (finds("midpoint"))
    for (const c of sketch.curves) {
      if (c.kind !== "line") continue;
      const m = mid2(c.start, c.end);
      if (distance2(m, p) < MIDPOINT_PIXELS * pixel)
        return { at: m, label: "midpoint", ties: [{ kind: "midpoint", of: (ref) => [ref, c.id] }] };
    }
  if (hit && hit.kind !== "point" && finds("curve"))
    return { at: hit.at, label: "on curve", ties: [{ kind: "point-on-curve", of: (ref) => [ref, hit.ref] }] };
  return nothing;
}

/** A direction found for a line being drawn. */
export interface Heading {
  readonly at: Vec2;
  readonly label: string;
  readonly tie: { readonly kind: Constraint["kind"]; readonly of: (line: string) => string[] } | undefined;
}

const NEAR = (3.5 * Math.PI) / 180;

/** Level, upright, smoothly on from an arc, or along or across a line nearby or the one before. */
export function snapHeading(
  sketch: Sketch,
  from: Vec2,
  p: Vec2,
  pixel: number,
  off: boolean,
  previous?: string,
): Heading {
  const length = distance2(from, p);
  if (off || length < 4 * pixel) return { at: p, label: "", tie: undefined };
  const angle = Math.atan2(p[1] - from[1], p[0] - from[0]);
  const turned = (to: number) => Math.abs(Math.atan2(Math.sin(angle - to), Math.cos(angle - to)));
  const along = (to: number): Vec2 => {
    const l = length * Math.cos(angle - to);
    return [from[0] + l * Math.cos(to), from[1] + l * Math.sin(to)];
  };
  if (finds("tangent"))
    for (const curve of sketch.curves) {
      const s = curve.kind === "line" ? undefined : segmentOf(curve);
      if (!s || isWhole(s)) continue;
      for (const end of [0, 1]) {
        const ref = `${curve.id}.${end ? "end" : "start"}`;
        if (distance2(pointAt(sketch, ref), from) > COINCIDENT) continue;
        const [h] = headingAt(s, end),
          to = end ? h : h + Math.PI;
        if (turned(to) < NEAR)
          return { at: along(to), label: "tangent", tie: { kind: "tangent", of: (l) => [l, curve.id] } };
      }
    }
  if (finds("level")) {
    for (const to of [0, Math.PI])
      if (turned(to) < NEAR)
        return { at: [p[0], from[1]], label: "horizontal", tie: { kind: "horizontal", of: (l) => [l] } };
    for (const to of [Math.PI / 2, -Math.PI / 2])
      if (turned(to) < NEAR)
        return { at: [from[0], p[1]], label: "vertical", tie: { kind: "vertical", of: (l) => [l] } };
  }
  if (!finds("slanted")) return { at: p, label: "", tie: undefined };
  // slanting lines only: level and upright ones have been answered
  const lines = sketch.curves
    .filter((c) => c.kind === "line")
    .sort((a, b) => Number(b.id === previous) - Number(a.id === previous));
  for (const c of lines) {
    const own = Math.atan2(c.end[1] - c.start[1], c.end[0] - c.start[0]);
    for (const [turn, kind] of [
      [0, "parallel"],
      [Math.PI, "parallel"],
      [Math.PI / 2, "perpendicular"],
      [-Math.PI / 2, "perpendicular"],
    ] as const)
      if (turned(own + turn) < NEAR) return { at: along(own + turn), label: kind, tie: { kind, of: (l) => [l, c.id] } };
  }
  return { at: p, label: "", tie: undefined };
}
