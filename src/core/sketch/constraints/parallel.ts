import { turnBetween } from "./equations";
import type { RelationKind } from "./kind";

export const parallel: RelationKind = {
  takes: [["line", "line"]],
  sentence: ([a, b]) => `${a} is parallel to ${b}`,
  equations: (s, [a, b]) => [turnBetween(s.line(a!), s.line(b!), s.scale, (t) => [Math.sin(t), Math.cos(t)])],
};
