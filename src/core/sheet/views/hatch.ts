import type { Vec2 } from "@/core/geometry/vector";
import { meetsBox, type Box, type Segment } from "../plane";

/**
 * Hatch at 45° over a region: lines that run where they have crossed its bounds an odd number of times.
 * @param bounds all of them in any order @param apart between the lines @param open boxes that are left clear
 * @param falls at −45° in its place
 */
export function hatched(
  bounds: readonly Segment[],
  apart: number,
  open: readonly Box[] = [],
  falls = false,
): Segment[] {
  // in coordinates turned by 45° the lines are level
  const sense = falls ? -1 : 1;
  const turned = ([x, y]: Vec2): Vec2 => [(x + sense * y) * Math.SQRT1_2, (y - sense * x) * Math.SQRT1_2];
  const back = ([u, v]: Vec2): Vec2 => [(u - sense * v) * Math.SQRT1_2, (sense * u + v) * Math.SQRT1_2];
  const pieces = bounds.map(([a, b]) => [turned(a), turned(b)] as const);
  const levels = pieces.flatMap(([a, b]) => [a[1], b[1]]);
  if (!levels.length) return [];
  // an irrational start keeps lines off the corners, where crossings would be counted twice
  const first = Math.ceil(Math.min(...levels) / apart) * apart + apart * START;
  const lines: Segment[] = [];
  for (let v = first - apart; v < Math.max(...levels); v += apart) {
    const at = pieces
      .flatMap(([a, b]) => (a[1] <= v === b[1] <= v ? [] : [a[0] + ((v - a[1]) / (b[1] - a[1])) * (b[0] - a[0])]))
      .sort((p, q) => p - q);
    for (let i = 0; i + 1 < at.length; i += 2) lines.push([back([at[i]!, v]), back([at[i + 1]!, v])]);
  }
  return lines.flatMap((l) => clearOf(l, open));
}
const START = 0.381966;

/** What of a line lies in none of the boxes, in short steps. */
function clearOf(line: Segment, open: readonly Box[]): Segment[] {
  if (!open.some((b) => meetsBox(line, b))) return [line];
  const [a, b] = line,
    n = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1])));
  const on = (t: number): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
  return Array.from({ length: n }, (_, i): Segment => [on(i / n), on((i + 1) / n)]).filter(
    (s) => !open.some((o) => meetsBox(s, o)),
  );
}
