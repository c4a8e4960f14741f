import { distance as apart } from "./equations";
import type { Pair, RelationKind } from "./kind";

export const distance: RelationKind<Pair> = {
  takes: [["point", "point"]],
  sentence: ([a, b], size) => `${a} is ${size} from ${b}`,
  equations: (s, [a, b], size) => [apart(s.point(a), s.point(b), size)],
  measure: (s, [a, b], x) => {
    const p = s.point(a),
      q = s.point(b);
    return Math.hypot(x[q[0]]! - x[p[0]]!, x[q[1]]! - x[p[1]]!);
  },
};
