import type { Vec2 } from "@/core/geometry/vector";
import { strokeSegments } from "./obstacles";
import type { Stroke } from "./outline";

/** Steps over the shortest thing that may be inside, and how often an end is halved: far below a line's width. */
const STEPS = 96;
const HALVINGS = 40;

/** Shares of a curve, 0 to 1, that lie inside; ends are found by halving. */
function insideRuns(on: (t: number) => Vec2, inside: (p: Vec2) => boolean, steps: number): [number, number][] {
  const isIn = (t: number) => inside(on(t));
  const edge = (from: number, to: number): number => {
    const was = isIn(from);
    let [a, b] = [from, to];
    for (let i = 0; i < HALVINGS; i++) {
      const m = (a + b) / 2;
      if (isIn(m) === was) a = m;
      else b = m;
    }
    return (a + b) / 2;
  };
  const runs: [number, number][] = [];
  let start = isIn(0) ? 0 : undefined;
  for (let i = 1; i <= steps; i++) {
    const [from, to] = [(i - 1) / steps, i / steps];
    const now = isIn(to);
    if (now && start === undefined) start = edge(from, to);
    if (now || start === undefined) continue;
    runs.push([start, edge(from, to)]);
    start = undefined;
  }
  if (start !== undefined) runs.push([start, 1]);
  return runs.filter(([a, b]) => b > a);
}

const between = (a: Vec2, b: Vec2, t: number): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
const stepsFor = (length: number, fine: number): number =>
  Math.min(4000, Math.max(STEPS, Math.ceil((4 * length) / fine)));

/** What of a straight piece lies inside. @param fine the least width of what is inside, mm */
export const clippedSegment = (a: Vec2, b: Vec2, inside: (p: Vec2) => boolean, fine: number): [Vec2, Vec2][] =>
  insideRuns((t) => between(a, b, t), inside, stepsFor(Math.hypot(b[0] - a[0], b[1] - a[1]), fine)).map(([s, t]) => [
    between(a, b, s),
    between(a, b, t),
  ]);

/** What of a stroke lies inside. @param fine the least width of what is inside, mm */
export function clippedStroke(stroke: Stroke, inside: (p: Vec2) => boolean, fine: number): Stroke[] {
  if (stroke.kind === "line")
    return clippedSegment(stroke.a, stroke.b, inside, fine).map(([a, b]) => ({ ...stroke, a, b }));
  if (stroke.kind === "arc") {
    const turn = stroke.to - stroke.from;
    const on = (t: number): Vec2 => {
      const angle = stroke.from + turn * t;
      return [stroke.centre[0] + stroke.radius * Math.cos(angle), stroke.centre[1] + stroke.radius * Math.sin(angle)];
    };
    return insideRuns(on, inside, stepsFor(turn * stroke.radius, fine)).map(([a, b]) => ({
      ...stroke,
      from: stroke.from + turn * a,
      to: stroke.from + turn * b,
    }));
  }
  // a free path in the pieces it has
  return strokeSegments(stroke)
    .flatMap(([a, b]) => clippedSegment(a, b, inside, fine))
    .map((points): Stroke => ({ ...stroke, points }));
}

/** A stroke with every place of it moved; an arc stays one. */
export function movedStroke(s: Stroke, by: (p: Vec2) => Vec2): Stroke {
  if (s.kind === "line") return { ...s, a: by(s.a), b: by(s.b) };
  return s.kind === "arc" ? { ...s, centre: by(s.centre) } : { ...s, points: s.points.map(by) };
}
