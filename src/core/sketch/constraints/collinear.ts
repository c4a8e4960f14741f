import { pointLine } from "./equations";
import type { Pair, RelationKind, Slots } from "./kind";

const ends = (s: Slots, l: string) => {
  const [sx, sy, ex, ey] = s.line(l);
  return [
    [sx, sy],
    [ex, ey],
  ] as const;
};

/** Two lines on one line. Along an axis this is a plain identity of coordinates. */
export const collinear: RelationKind<Pair> = {
  takes: [["line", "line"]],
  sentence: ([a, b]) => `${a} and ${b} lie on one line`,
  mergesLate: true,
  merge: (slots, [a, b]) => {
    const [p, q] = [slots.line(a), slots.line(b)];
    for (const [k, l] of [
      [0, 2],
      [1, 3],
    ] as const)
      if (slots.same(p[k], p[l]) || slots.same(q[k], q[l]))
        return [
          [p[k], p[l]],
          [q[k], q[l]],
          [p[k], q[k]],
        ];
    return [];
  },
  equations: (s, [a, b]) => {
    const [p, q] = [s.line(a), s.line(b)];
    if (([0, 1] as const).some((k) => s.same(p[k], p[k + 2]!) && s.same(q[k], q[k + 2]!))) return [];
    return ends(s, b).map((e) => pointLine(e, s.line(a), 0));
  },
};
