import { turnBetween } from "./equations";
import type { RelationKind } from "./kind";

export const perpendicular: RelationKind = {
  takes: [["line", "line"]],
  sentence: ([a, b]) => `${a} is perpendicular to ${b}`,
  equations: (s, [a, b]) => [turnBetween(s.line(a!), s.line(b!), s.scale, (t) => [Math.cos(t), -Math.sin(t)])],
};
