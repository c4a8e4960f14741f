import { ALONG, turnTo } from "./equations";
import type { RelationKind } from "./kind";

export const parallel: RelationKind = {
  takes: [["line", "line"]],
  sentence: ([a, b]) => `${a} is parallel to ${b}`,
  equations: (s, [a, b], _size, x) => [turnTo(s.line(a!), s.line(b!), s.scale, x, ALONG)],
};
