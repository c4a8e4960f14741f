import { distance } from "./equations";
import type { One, RelationKind } from "./kind";

export const length: RelationKind<One> = {
  takes: [["line"]],
  sentence: ([l], size) => `${l} is ${size} long`,
  equations: (s, [l], size) => {
    const [sx, sy, ex, ey] = s.line(l);
    return [distance([sx, sy], [ex, ey], size)];
  },
  measure: (s, [l], x) => {
    const [sx, sy, ex, ey] = s.line(l);
    return Math.hypot(x[ex]! - x[sx]!, x[ey]! - x[sy]!);
  },
};
