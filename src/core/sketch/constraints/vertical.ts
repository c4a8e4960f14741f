import type { RelationKind } from "./kind";

export const vertical: RelationKind = {
  takes: [["line"]],
  sentence: ([l]) => `${l} is vertical`,
  merge: (s, [l]) => [[s.line(l!)[0], s.line(l!)[2]]],
};
