import { equalLength } from "./equations";
import type { Pair, RelationKind } from "./kind";

export const equal: RelationKind<Pair> = {
  takes: [
    ["line", "line"],
    ["circle", "circle"],
  ],
  sentence: ([a, b]) => `${a} and ${b} are equal`,
  merge: (s, [a, b]) => (s.type(a) !== "line" ? [[s.radius(a), s.radius(b)]] : []),
  equations: (s, [a, b]) => (s.type(a) === "line" ? [equalLength(s.line(a), s.line(b))] : []),
};
