import type { One, RelationKind } from "./kind";

/** Fixed at the coordinates the document holds; the solver's set-up does the tying (slots become constants). */
export const fixed: RelationKind<One> = {
  takes: [["point"], ["line"], ["circle"], ["ellipse"], ["spline"]],
  sentence: ([a]) => `${a} is fixed`,
};
