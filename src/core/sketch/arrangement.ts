import { cross2, distance2, dot2, scale2, add2, sub2, type Vec2 } from "@/core/geometry/vector";
import type { Curve } from "./sketch";
import { JOIN } from "./tolerance";

/** A piece of a curve between two vertices. Arcs run counter-clockwise from `from` by `sweep` (> 0) unless reversed. */
export type Segment =
  | { readonly kind: "line"; readonly curve: string; readonly a: Vec2; readonly b: Vec2 }
  | { readonly kind: "arc"; readonly curve: string; readonly centre: Vec2; readonly radius: number; readonly from: number; readonly sweep: number };

const TURN = 2 * Math.PI;
const around = (t: number) => ((t % TURN) + TURN) % TURN;

export const onCircle = (centre: Vec2, radius: number, angle: number): Vec2 => [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle)];
export const segmentStart = (s: Segment): Vec2 => (s.kind === "line" ? s.a : onCircle(s.centre, s.radius, s.from));
export const segmentEnd = (s: Segment): Vec2 => (s.kind === "line" ? s.b : onCircle(s.centre, s.radius, s.from + s.sweep));
export const reversed = (s: Segment): Segment => (s.kind === "line" ? { ...s, a: s.b, b: s.a } : { ...s, from: s.from + s.sweep, sweep: -s.sweep });
export const isWholeCircle = (s: Segment): boolean => s.kind === "arc" && Math.abs(Math.abs(s.sweep) - TURN) < 1e-12;

/** Points along a segment, the end left out; arcs in steps of at most `step` radians. */
export function sampled(s: Segment, step = TURN / 256): Vec2[] {
  if (s.kind === "line") return [s.a];
  const n = Math.max(2, Math.ceil(Math.abs(s.sweep) / step));
  return Array.from({ length: n }, (_, i) => onCircle(s.centre, s.radius, s.from + (s.sweep * i) / n));
}

/** Where two curves meet, overlapping stretches left out. */
export function meetings(p: Curve, q: Curve): Vec2[] {
  if (p.kind === "line" && q.kind === "line") return lineLine(p.start, p.end, q.start, q.end);
  if (p.kind === "circle" && q.kind === "circle") return circleCircle(p.centre, p.radius, q.centre, q.radius);
  const [l, c] = p.kind === "line" ? [p, q as typeof q & { kind: "circle" }] : [q as Curve & { kind: "line" }, p];
  return lineCircle(l.start, l.end, c.centre, c.radius);
}

function lineLine(a: Vec2, b: Vec2, c: Vec2, d: Vec2): Vec2[] {
  const u = sub2(b, a), v = sub2(d, c), w = sub2(c, a);
  const area = cross2(u, v), lu = Math.hypot(...u), lv = Math.hypot(...v);
  if (Math.abs(area) <= 1e-12 * lu * lv) {
    // along one line: the ends of each that lie on the other
    return [c, d].filter((p) => onLine(a, b, p)).concat([a, b].filter((p) => onLine(c, d, p)));
  }
  const t = cross2(w, v) / area, s = cross2(w, u) / area;
  if (t < -JOIN / lu || t > 1 + JOIN / lu || s < -JOIN / lv || s > 1 + JOIN / lv) return [];
  return [add2(a, scale2(u, t))];
}

function onLine(a: Vec2, b: Vec2, p: Vec2): boolean {
  const u = sub2(b, a), l = Math.hypot(...u), w = sub2(p, a);
  const along = dot2(u, w) / l;
  return Math.abs(cross2(u, w)) / l <= JOIN && along >= -JOIN && along <= l + JOIN;
}

function lineCircle(a: Vec2, b: Vec2, centre: Vec2, radius: number): Vec2[] {
  const u = sub2(b, a), l = Math.hypot(...u), w = sub2(centre, a);
  const along = dot2(u, w) / l, off = Math.abs(cross2(u, w)) / l;
  if (off > radius + JOIN) return [];
  // closer than JOIN to touching counts as touching, in one point
  const half = off >= radius - JOIN * JOIN ? 0 : Math.sqrt(Math.max(0, radius * radius - off * off));
  return (half ? [along - half, along + half] : [along]).filter((t) => t >= -JOIN && t <= l + JOIN).map((t) => add2(a, scale2(u, t / l)));
}

function circleCircle(c: Vec2, r: number, d: Vec2, s: number): Vec2[] {
  const dist = distance2(c, d);
  if (dist < JOIN || dist > r + s + JOIN || dist < Math.abs(r - s) - JOIN) return [];
  const x = (dist * dist + r * r - s * s) / (2 * dist);
  const h2 = r * r - x * x;
  const u = scale2(sub2(d, c), 1 / dist), foot = add2(c, scale2(u, x));
  if (h2 <= JOIN * JOIN) return [foot];
  const h = Math.sqrt(h2), n: Vec2 = [-u[1], u[0]];
  return [add2(foot, scale2(n, h)), sub2(foot, scale2(n, h))];
}

/** Cuts every curve at every meeting point. Whole circles that meet nothing stay whole. */
export function splitAtMeetings(curves: readonly Curve[]): Segment[] {
  const cuts: Vec2[][] = curves.map(() => []);
  const box = curves.map((c) =>
    c.kind === "line"
      ? [Math.min(c.start[0], c.end[0]), Math.min(c.start[1], c.end[1]), Math.max(c.start[0], c.end[0]), Math.max(c.start[1], c.end[1])]
      : [c.centre[0] - c.radius, c.centre[1] - c.radius, c.centre[0] + c.radius, c.centre[1] + c.radius],
  ) as [number, number, number, number][];
  for (let i = 0; i < curves.length; i++)
    for (let j = i + 1; j < curves.length; j++) {
      const a = box[i]!, b = box[j]!;
      if (a[0] > b[2] + JOIN || b[0] > a[2] + JOIN || a[1] > b[3] + JOIN || b[1] > a[3] + JOIN) continue;
      for (const p of meetings(curves[i]!, curves[j]!)) {
        cuts[i]!.push(p);
        cuts[j]!.push(p);
      }
    }
  return curves.flatMap((c, i): Segment[] => {
    if (c.kind === "line") {
      const l = distance2(c.start, c.end);
      const along = (p: Vec2) => dot2(sub2(p, c.start), sub2(c.end, c.start)) / l;
      const stops = [c.start, ...cuts[i]!.filter((p) => along(p) > JOIN && along(p) < l - JOIN).sort((p, q) => along(p) - along(q)), c.end];
      return stops.slice(1).map((b, k) => ({ kind: "line" as const, curve: c.id, a: stops[k]!, b })).filter((s) => distance2(s.a, s.b) > JOIN);
    }
    const angles = cuts[i]!.map((p) => around(Math.atan2(p[1] - c.centre[1], p[0] - c.centre[0]))).sort((a, b) => a - b);
    const stops = angles.filter((t, k) => k === 0 || (t - angles[k - 1]!) * c.radius > JOIN);
    if (stops.length > 1 && (stops[0]! + TURN - stops[stops.length - 1]!) * c.radius <= JOIN) stops.pop();
    if (!stops.length) stops.push(0);
    return stops.map((from, k) => ({ kind: "arc" as const, curve: c.id, centre: c.centre, radius: c.radius, from, sweep: (k + 1 < stops.length ? stops[k + 1]! : stops[0]! + TURN) - from }));
  });
}
