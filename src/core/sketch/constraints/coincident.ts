import type { Pair, RelationKind } from "./kind";

export const coincident: RelationKind<Pair> = {
  takes: [["point", "point"]],
  sentence: ([a, b]) => `${a} and ${b} coincide`,
  merge: (s, [a, b]) => {
    const p = s.point(a),
      q = s.point(b);
    return [
      [p[0], q[0]],
      [p[1], q[1]],
    ];
  },
};
