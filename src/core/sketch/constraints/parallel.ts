import { ALONG, turnTo } from "./equations";
import type { Pair, RelationKind } from "./kind";

export const parallel: RelationKind<Pair> = {
  takes: [["line", "line"]],
  sentence: ([a, b]) => `${a} is parallel to ${b}`,
  equations: (s, [a, b], _size, x) => [turnTo(s.line(a), s.line(b), s.scale, x, ALONG)],
};
