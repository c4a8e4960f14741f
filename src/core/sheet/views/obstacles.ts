import type { Vec2 } from "@/core/geometry/vector";
import type { Stroke } from "./outline";
import type { Segment } from "../plane";

/** Arcs are followed this closely when something must keep clear of them, radians. */
const STEP = 0.25;

/** A stroke as straight pieces. */
export function strokeSegments(s: Stroke): Segment[] {
  if (s.kind === "line") return [[s.a, s.b]];
  const points = s.kind === "path" ? s.points : arcPoints(s.centre, s.radius, s.from, s.to);
  return points.slice(1).map((p, i): Segment => [points[i]!, p]);
}

export function arcPoints(centre: Vec2, radius: number, from: number, to: number): Vec2[] {
  const n = Math.max(2, Math.ceil((to - from) / STEP));
  return Array.from({ length: n + 1 }, (_, i): Vec2 => {
    const t = from + ((to - from) * i) / n;
    return [centre[0] + radius * Math.cos(t), centre[1] + radius * Math.sin(t)];
  });
}

/** Points of a stroke of which some lie farthest each way. */
export function farPoints(s: Stroke): readonly Vec2[] {
  if (s.kind === "line") return [s.a, s.b];
  if (s.kind === "path") return s.points;
  const quarter = Math.PI / 2,
    first = Math.ceil(s.from / quarter),
    last = Math.floor(s.to / quarter);
  const turns = [
    s.from,
    s.to,
    ...Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * quarter),
  ];
  return turns.map((t) => [s.centre[0] + s.radius * Math.cos(t), s.centre[1] + s.radius * Math.sin(t)]);
}
