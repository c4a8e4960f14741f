import { linear } from "./equations";
import type { RelationKind } from "./kind";

export const midpoint: RelationKind = {
  takes: [["point", "line"]],
  sentence: ([p, l]) => `${p} is the midpoint of ${l}`,
  equations: (s, [p, l]) => {
    const [px, py] = s.point(p!), [sx, sy, ex, ey] = s.line(l!);
    return [linear([px, sx, ex], [1, -0.5, -0.5], 0), linear([py, sy, ey], [1, -0.5, -0.5], 0)];
  },
};
