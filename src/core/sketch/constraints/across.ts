import { pointLine, sideNow, type Rims } from "./equations";
import type { Pair, RelationKind, Slots } from "./kind";

const middle = (s: Slots, ref: string) =>
  s.type(ref) === "line"
    ? (s.line(ref).slice(0, 2) as unknown as readonly [number, number])
    : s.type(ref) === "point"
      ? s.point(ref)
      : s.centre(ref);
const rims = (s: Slots, ref: string, side: number, far: boolean): Rims =>
  s.type(ref) === "circle" || s.type(ref) === "arc" ? [[s.radius(ref), far ? side : -side]] : [];

/**
 * A whole size across a centre line, twice the distance from it: the diameter of a turned part, the width of a
 * symmetric one.
 */
export const across: RelationKind<Pair> = {
  takes: [
    ["point", "line"],
    ["line", "line"],
    ["circle", "line"],
  ],
  sentence: ([p, l], size) => `${p} is ${size} across ${l}`,
  equations: (s, [p, l], size, x, { sides }) => {
    const at = middle(s, p),
      side = sideNow(at, s.line(l), x) < 0 ? -1 : 1;
    return [pointLine(at, s.line(l), (side * size) / 2, rims(s, p, side, sides?.[0] === "far"))];
  },
  measure: (s, [p, l], x, { sides }) => {
    const at = middle(s, p),
      off = sideNow(at, s.line(l), x);
    return (
      2 * Math.abs(rims(s, p, off < 0 ? -1 : 1, sides?.[0] === "far").reduce((sum, [r, k]) => sum + k * x[r]!, off))
    );
  },
};
