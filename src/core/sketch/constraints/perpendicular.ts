import { ACROSS, turnTo } from "./equations";
import type { Pair, RelationKind } from "./kind";

export const perpendicular: RelationKind<Pair> = {
  takes: [["line", "line"]],
  sentence: ([a, b]) => `${a} is perpendicular to ${b}`,
  equations: (s, [a, b], _size, x) => [turnTo(s.line(a), s.line(b), s.scale, x, ACROSS)],
};
