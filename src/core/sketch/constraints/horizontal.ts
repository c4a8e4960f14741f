import type { RelationKind } from "./kind";

export const horizontal: RelationKind = {
  takes: [["line"]],
  sentence: ([l]) => `${l} is horizontal`,
  merge: (s, [l]) => [[s.line(l!)[1], s.line(l!)[3]]],
};
