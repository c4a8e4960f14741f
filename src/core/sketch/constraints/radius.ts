import { linear } from "./equations";
import type { One, RelationKind } from "./kind";

export const radius: RelationKind<One> = {
  takes: [["circle"]],
  sentence: ([c], size) => `${c} has radius ${size}`,
  equations: (s, [c], size) => [linear([s.radius(c)], [1], size)],
  measure: (s, [c], x) => x[s.radius(c)]!,
};

export const diameter: RelationKind<One> = {
  takes: [["circle"]],
  sentence: ([c], size) => `${c} has diameter ${size}`,
  equations: (s, [c], size) => [linear([s.radius(c)], [2], size)],
  measure: (s, [c], x) => 2 * x[s.radius(c)]!,
};
