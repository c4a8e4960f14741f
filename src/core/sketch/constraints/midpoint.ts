import { equalLength, linear, pointCircle } from "./equations";
import type { Pair, RelationKind } from "./kind";

export const midpoint: RelationKind<Pair> = {
  takes: [
    ["point", "line"],
    ["point", "arc"],
  ],
  sentence: ([p, l]) => `${p} is the midpoint of ${l}`,
  equations: (slots, [p, l]) => {
    if (slots.type(l) === "arc") {
      const [sx, sy, ex, ey] = slots.all(l) as [number, number, number, number],
        at = slots.point(p);
      return [pointCircle(at, slots.centre(l), slots.radius(l)), equalLength([sx, sy, ...at], [ex, ey, ...at])];
    }
    const [px, py] = slots.point(p),
      [sx, sy, ex, ey] = slots.line(l);
    return [linear([px, sx, ex], [1, -0.5, -0.5], 0), linear([py, sy, ey], [1, -0.5, -0.5], 0)];
  },
};
