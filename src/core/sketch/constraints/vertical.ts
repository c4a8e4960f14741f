import type { One, RelationKind } from "./kind";

export const vertical: RelationKind<One> = {
  takes: [["line"], ["point", "point"]],
  sentence: ([a, b]) => (b ? `${a} and ${b} stand upright` : `${a} is vertical`),
  merge: (s, [a, b]) => [b ? [s.point(a)[0], s.point(b)[0]] : [s.line(a)[0], s.line(a)[2]]],
};
