import { equalLength, linear, pointCircle } from "./equations";
import type { Pair, RelationKind } from "./kind";

export const midpoint: RelationKind<Pair> = {
  takes: [
    ["point", "line"],
    ["point", "arc"],
  ],
  sentence: ([p, l]) => `${p} is the midpoint of ${l}`,
  equations: (s, [p, l]) => {
    if (s.type(l) === "arc") {
      const [sx, sy, ex, ey] = s.all(l) as [number, number, number, number],
        at = s.point(p);
      return [pointCircle(at, s.centre(l), s.radius(l)), equalLength([sx, sy, ...at], [ex, ey, ...at])];
    }
    const [px, py] = s.point(p),
      [sx, sy, ex, ey] = s.line(l);
    return [linear([px, sx, ex], [1, -0.5, -0.5], 0), linear([py, sy, ey], [1, -0.5, -0.5], 0)];
  },
};
