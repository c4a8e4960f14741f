import type { Vec2 } from "@/core/geometry/vector";

/** A line of text: about so wide and high, pixels. */
export const LABEL = { width: 132, height: 18 };

/**
 * Places for labels beside points so that none covers another: each goes down from where it would like to stand until
 * it is free. @returns upper left corners, in the order of the points
 */
export function apart(points: readonly Vec2[]): Vec2[] {
  const placed: Vec2[] = [];
  const order = points.map((_, i) => i).sort((i, j) => points[i]![1] - points[j]![1] || i - j);
  const result: Vec2[] = [];
  for (const i of order) {
    const [x, y] = points[i]!;
    let at: Vec2 = [x + 26, y - 26];
    const covers = ([px, py]: Vec2) => Math.abs(px - at[0]) < LABEL.width && Math.abs(py - at[1]) < LABEL.height;
    for (let other = placed.find(covers); other; other = placed.find(covers)) at = [at[0], other[1] + LABEL.height];
    placed.push(at);
    result[i] = at;
  }
  return result;
}
