import type { Pair, RelationKind } from "./kind";

export const concentric: RelationKind<Pair> = {
  takes: [["circle", "circle"]],
  sentence: ([a, b]) => `${a} and ${b} are concentric`,
  merge: (s, [a, b]) => {
    const p = s.centre(a),
      q = s.centre(b);
    return [
      [p[0], q[0]],
      [p[1], q[1]],
    ];
  },
};
