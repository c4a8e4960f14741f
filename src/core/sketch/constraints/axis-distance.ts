import { linear } from "./equations";
import type { RelationKind } from "./kind";

/** Horizontal (axis 0) or vertical (axis 1) distance of two points; keeps the side they are on. */
const along = (axis: 0 | 1, word: string): RelationKind => ({
  takes: [["point", "point"]],
  sentence: ([a, b], size) => `${a} is ${size} ${word} from ${b}`,
  equations: (s, [a, b], size, x) => {
    const p = s.point(a!)[axis],
      q = s.point(b!)[axis];
    return [linear([p, q], [-1, 1], x[q]! < x[p]! ? -size : size)];
  },
  measure: (s, [a, b], x) => Math.abs(x[s.point(b!)[axis]]! - x[s.point(a!)[axis]]!),
});

export const horizontalDistance = along(0, "horizontally");
export const verticalDistance = along(1, "vertically");
