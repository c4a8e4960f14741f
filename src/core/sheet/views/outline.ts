import { SAME_WAY } from "@/core/geometry/tolerance";
import { distanceToSegment } from "../plane";
import { COMPUTED, COVERED, DRAWN_PARALLEL, FLAT_ARC, NEAR, POINT, WHOLE_TURN } from "../tolerance";
import { cross2, distance2, dot2, mid2, sub2, type Vec2 } from "@/core/geometry/vector";
import type { ProjectedEdge } from "@/core/kernel/scene";

/** A drawn line, arc (angles counter-clockwise, radians) or freer path, in view coordinates, mm. */
export type Stroke = {
  readonly hidden: boolean;
  /** Two faces go on into each other there without a corner: drawn thin, or not at all. */
  readonly tangent?: true;
} & (
  | { readonly kind: "line"; readonly a: Vec2; readonly b: Vec2 }
  | { readonly kind: "arc"; readonly centre: Vec2; readonly radius: number; readonly from: number; readonly to: number }
  | { readonly kind: "path"; readonly points: readonly Vec2[] }
);

const TURN = 2 * Math.PI;

interface Bundle<C> {
  readonly carrier: C;
  readonly shown: [number, number][];
  readonly hidden: [number, number][];
}

/** Joins overlapping intervals. */
function joined(list: readonly [number, number][], near: number): [number, number][] {
  const sorted = [...list].sort((a, b) => a[0] - b[0]);
  const out: [number, number][] = [];
  for (const [a, b] of sorted) {
    const last = out[out.length - 1];
    if (last && a <= last[1] + near) last[1] = Math.max(last[1], b);
    else out.push([a, b]);
  }
  return out;
}

/** What of `list` no interval of `covers` covers. */
function uncovered(
  list: readonly [number, number][],
  covers: readonly [number, number][],
  near: number,
): [number, number][] {
  let rest = list.map(([a, b]): [number, number] => [a, b]);
  for (const [c, d] of covers)
    rest = rest.flatMap(([a, b]): [number, number][] =>
      d <= a + near || c >= b - near
        ? [[a, b]]
        : [
            [a, Math.min(b, c)],
            [Math.max(a, d), b],
          ],
    );
  return rest.filter(([a, b]) => b - a > near);
}

const WIDEST = 5;

interface Circle {
  readonly centre: Vec2;
  readonly radius: number;
}

/** The circle that all points lie on, but for so much. */
function circleThrough(p: readonly Vec2[], off: number): Circle | undefined {
  const a = p[0]!,
    b = p[Math.floor(p.length / 3)]!,
    c = p[Math.floor((2 * p.length) / 3)]!;
  const d = 2 * cross2(sub2(b, a), sub2(c, a));
  if (Math.abs(d) < SAME_WAY) return undefined;
  const bb = dot2(b, b) - dot2(a, a),
    cc = dot2(c, c) - dot2(a, a);
  const centre: Vec2 = [(bb * (c[1] - a[1]) - cc * (b[1] - a[1])) / d, (cc * (b[0] - a[0]) - bb * (c[0] - a[0])) / d];
  const radius = distance2(centre, a);
  return isRoundAbout(p, { centre, radius }, off) ? { centre, radius } : undefined;
}
/** @param off mm; of larger circles the same share of their radius, but no more than a line is wide */
const isRoundAbout = (p: readonly Vec2[], { centre, radius }: Circle, off: number): boolean =>
  radius < FLAT_ARC &&
  p.every((q) => Math.abs(distance2(q, centre) - radius) < off * Math.min(WIDEST, Math.max(1, radius)));

/**
 * Cleans what hidden-line removal gives: straight pieces on one line are joined, pieces on one circle too, and
 * hidden lines under visible ones are dropped (ISO 128: the visible outline has precedence).
 */
export function cleanStrokes(edges: readonly ProjectedEdge[]): Stroke[] {
  const lines: Bundle<{ at: Vec2; along: Vec2 }>[] = [];
  const circles: Bundle<Circle>[] = [];
  const free: ProjectedEdge[] = [],
    paths: Stroke[] = [];
  for (const { points, hidden } of edges) {
    const straight = straightSpan(points);
    if (straight) {
      const [a, b] = straight;
      const length = distance2(a, b);
      if (length < NEAR) continue;
      let along: Vec2 = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
      if (along[0] < -SAME_WAY || (Math.abs(along[0]) <= SAME_WAY && along[1] < 0)) along = [-along[0], -along[1]];
      let bundle = lines.find(
        (l) =>
          Math.abs(cross2(l.carrier.along, along)) < DRAWN_PARALLEL &&
          Math.abs(cross2(l.carrier.along, sub2(a, l.carrier.at))) < NEAR,
      );
      if (!bundle) lines.push((bundle = { carrier: { at: a, along }, shown: [], hidden: [] }));
      const { at, along: u } = bundle.carrier;
      const span = [dot2(sub2(a, at), u), dot2(sub2(b, at), u)].sort((p, q) => p - q) as [number, number];
      (hidden ? bundle.hidden : bundle.shown).push(span);
      continue;
    }
    const circle = circleThrough(points, NEAR);
    if (!circle) {
      free.push({ points, hidden });
      continue;
    }
    let bundle = circles.find(
      (c) => distance2(c.carrier.centre, circle.centre) < NEAR && Math.abs(c.carrier.radius - circle.radius) < NEAR,
    );
    if (!bundle) circles.push((bundle = { carrier: circle, shown: [], hidden: [] }));
    for (const span of angles(points, bundle.carrier.centre)) (hidden ? bundle.hidden : bundle.shown).push(span);
  }
  // where two round faces meet, the edge is computed: it is a circle but for that, or lies on one that there is
  for (const { points, hidden } of free) {
    let bundle = circles.find((c) => isRoundAbout(points, c.carrier, COMPUTED));
    const circle = bundle ? undefined : circleThrough(points, COMPUTED);
    if (circle) circles.push((bundle = { carrier: circle, shown: [], hidden: [] }));
    if (!bundle) paths.push({ kind: "path", points, hidden });
    else for (const span of angles(points, bundle.carrier.centre)) (hidden ? bundle.hidden : bundle.shown).push(span);
  }
  const strokes: Stroke[] = [];
  for (const { carrier, shown, hidden } of lines) {
    const at = (t: number): Vec2 => [carrier.at[0] + carrier.along[0] * t, carrier.at[1] + carrier.along[1] * t];
    const seen = joined(shown, NEAR);
    for (const [a, b] of seen) strokes.push({ kind: "line", a: at(a), b: at(b), hidden: false });
    for (const [a, b] of uncovered(joined(hidden, NEAR), seen, NEAR))
      strokes.push({ kind: "line", a: at(a), b: at(b), hidden: true });
  }
  for (const { carrier, shown, hidden } of circles) {
    const near = NEAR / carrier.radius;
    const seen = joined(shown, near);
    const give = ([from, to]: [number, number], h: boolean) =>
      strokes.push({ kind: "arc", ...carrier, from, to, hidden: h });
    seen.forEach((s) => give(s, false));
    uncovered(joined(hidden, near), seen, near).forEach((s) => give(s, true));
  }
  return [...strokes, ...uncoveredPaths(paths, strokes)].filter((s) => strokeLength(s) > POINT);
}

/** How long a stroke is, mm of the part. */
export function strokeLength(s: Stroke): number {
  if (s.kind === "line") return distance2(s.a, s.b);
  if (s.kind === "arc") return s.radius * (s.to - s.from);
  return s.points.slice(1).reduce((l, p, i) => l + distance2(p, s.points[i]!), 0);
}

/**
 * Free paths without what another line covers: an edge that two round faces make repeats the outline of one of them
 * seen along its axis, and is no better than it was computed.
 */
function uncoveredPaths(paths: readonly Stroke[], others: readonly Stroke[]): Stroke[] {
  const seen = others.filter((s) => !s.hidden),
    kept: Stroke[] = [];
  // what is visible covers what is hidden
  for (const stroke of [...paths].sort((a, b) => Number(a.hidden) - Number(b.hidden))) {
    if (stroke.kind !== "path") continue;
    const covers = stroke.hidden ? [...others, ...kept] : [...seen, ...kept];
    let run: Vec2[] = [];
    const end = () => {
      if (run.length > 1) kept.push({ ...stroke, points: run });
      run = [];
    };
    for (const [i, b] of stroke.points.slice(1).entries()) {
      const a = stroke.points[i]!;
      if ([a, mid2(a, b), b].every((q) => covers.some((s) => isOn(s, q)))) end();
      else run.push(...(run.length ? [b] : [a, b]));
    }
    end();
  }
  return kept;
}

function isOn(stroke: Stroke, p: Vec2): boolean {
  if (stroke.kind === "line") return distanceToSegment(p, [stroke.a, stroke.b]) < COVERED;
  if (stroke.kind === "path")
    return stroke.points.slice(1).some((b, i) => distanceToSegment(p, [stroke.points[i]!, b]) < COVERED);
  if (Math.abs(distance2(p, stroke.centre) - stroke.radius) > COVERED) return false;
  const at = Math.atan2(p[1] - stroke.centre[1], p[0] - stroke.centre[0]),
    near = COVERED / stroke.radius;
  return [at - TURN, at, at + TURN].some((t) => t > stroke.from - near && t < stroke.to + near);
}

/** A line of points as few as show it: what is straight by its ends. */
export function thinned(points: readonly Vec2[]): readonly Vec2[] {
  const step = Math.ceil(points.length / MOST_POINTS);
  return straightSpan(points) ?? points.filter((_, i) => i % step === 0 || i === points.length - 1);
}
const MOST_POINTS = 48;

/** Ends of a straight run of points (which may run back on itself), or undefined when it bends. */
function straightSpan(points: readonly Vec2[]): [Vec2, Vec2] | undefined {
  const a = points[0]!;
  let far = a;
  for (const p of points) if (distance2(p, a) > distance2(far, a)) far = p;
  const length = distance2(a, far);
  if (length < NEAR) return [a, far];
  const u: Vec2 = [(far[0] - a[0]) / length, (far[1] - a[1]) / length];
  let low = 0,
    high = length;
  for (const p of points) {
    if (Math.abs(cross2(u, sub2(p, a))) > NEAR) return undefined;
    const t = dot2(sub2(p, a), u);
    low = Math.min(low, t);
    high = Math.max(high, t);
  }
  return [
    [a[0] + u[0] * low, a[1] + u[1] * low],
    [a[0] + u[0] * high, a[1] + u[1] * high],
  ];
}

/** The stretch of angles a sampled arc covers, as one or two intervals within 0 … 2π. */
function angles(points: readonly Vec2[], c: Vec2): [number, number][] {
  const at = points.map((p) => Math.atan2(p[1] - c[1], p[0] - c[0]));
  // a line of points may run back on itself
  let [turned, least, most] = [0, 0, 0];
  for (let i = 1; i < at.length; i++) {
    let d = at[i]! - at[i - 1]!;
    if (d > Math.PI) d -= TURN;
    if (d < -Math.PI) d += TURN;
    turned += d;
    [least, most] = [Math.min(least, turned), Math.max(most, turned)];
  }
  const sweep = Math.min(most - least, TURN);
  if (sweep > TURN - WHOLE_TURN) return [[0, TURN]];
  const start = (((at[0]! + least) % TURN) + TURN) % TURN;
  return start + sweep <= TURN
    ? [[start, start + sweep]]
    : [
        [start, TURN],
        [0, start + sweep - TURN],
      ];
}
