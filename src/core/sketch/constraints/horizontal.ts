import type { One, RelationKind } from "./kind";

export const horizontal: RelationKind<One> = {
  takes: [["line"], ["point", "point"]],
  sentence: ([a, b]) => (b ? `${a} and ${b} are level` : `${a} is horizontal`),
  merge: (s, [a, b]) => [b ? [s.point(a)[1], s.point(b)[1]] : [s.line(a)[1], s.line(a)[3]]],
};
