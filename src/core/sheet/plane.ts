import { distance2, type Vec2 } from "@/core/geometry/vector";

/** A rectangle along the axes. */
export interface Box {
  readonly min: Vec2;
  readonly max: Vec2;
}
export type Segment = readonly [Vec2, Vec2];

export const boxAround = (points: Iterable<Vec2>): Box => {
  const min: [number, number] = [Infinity, Infinity],
    max: [number, number] = [-Infinity, -Infinity];
  for (const [x, y] of points) {
    min[0] = Math.min(min[0], x);
    min[1] = Math.min(min[1], y);
    max[0] = Math.max(max[0], x);
    max[1] = Math.max(max[1], y);
  }
  return { min, max };
};
export const joinedBoxes = (boxes: readonly Box[]): Box => boxAround(boxes.flatMap((b) => [b.min, b.max]));
export const widthOf = (b: Box): number => b.max[0] - b.min[0];
export const heightOf = (b: Box): number => b.max[1] - b.min[1];
export const boxCorners = ({ min, max }: Box): readonly Vec2[] => [min, [max[0], min[1]], max, [min[0], max[1]]];
export const grown = ({ min, max }: Box, by: number): Box => ({
  min: [min[0] - by, min[1] - by],
  max: [max[0] + by, max[1] + by],
});
export const moved = ({ min, max }: Box, [x, y]: Vec2): Box => ({
  min: [min[0] + x, min[1] + y],
  max: [max[0] + x, max[1] + y],
});
export const overlap = (a: Box, b: Box): boolean =>
  a.min[0] < b.max[0] && b.min[0] < a.max[0] && a.min[1] < b.max[1] && b.min[1] < a.max[1];

/** Whether a segment has a point inside a box (Liang & Barsky, 1984). */
export function meetsBox([a, b]: Segment, { min, max }: Box): boolean {
  let [from, to] = [0, 1];
  for (const i of [0, 1] as const) {
    const d = b[i] - a[i];
    if (d === 0) {
      if (a[i] <= min[i] || a[i] >= max[i]) return false;
      continue;
    }
    const s = (min[i] - a[i]) / d,
      t = (max[i] - a[i]) / d;
    from = Math.max(from, Math.min(s, t));
    to = Math.min(to, Math.max(s, t));
  }
  return from < to;
}

/** Whether two segments cross, ends that only touch left out. */
export function cross([a, b]: Segment, [c, d]: Segment): boolean {
  const side = (p: Vec2, q: Vec2, r: Vec2) => (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  const [s, t, u, v] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
  return s * t < 0 && u * v < 0;
}

/** How far a point is from a segment. */
export function distanceToSegment(p: Vec2, [a, b]: Segment): number {
  const d: Vec2 = [b[0] - a[0], b[1] - a[1]],
    l = d[0] ** 2 + d[1] ** 2;
  const t = l ? Math.min(1, Math.max(0, ((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1]) / l)) : 0;
  return distance2(p, [a[0] + t * d[0], a[1] + t * d[1]]);
}
