import { pointLine as offLine, sideNow } from "./equations";
import type { Pair, RelationKind } from "./kind";

/** Distance of a point from a line; keeps the side the point is on. */
export const pointLine: RelationKind<Pair> = {
  takes: [["point", "line"]],
  sentence: ([p, l], size) => `${p} is ${size} from ${l}`,
  equations: (s, [p, l], size, x) => [
    offLine(s.point(p), s.line(l), sideNow(s.point(p), s.line(l), x) < 0 ? -size : size),
  ],
  measure: (s, [p, l], x) => Math.abs(sideNow(s.point(p), s.line(l), x)),
};
