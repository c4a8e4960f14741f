import { fold, turnBetween, turnNow } from "./equations";
import type { RelationKind } from "./kind";

/**
 * The angle between two lines as drawn (0 to 180°), times `times`; `flip` reverses the second. Keeps the sense it
 * has.
 */
const between = (times: number, sentence: RelationKind["sentence"]): RelationKind => ({
  takes: [["line", "line"]],
  sentence,
  equations: (s, [a, b], size, x, { flip }) => {
    const la = s.line(a!),
      lb = s.line(b!);
    const turned = flip ? Math.PI : 0;
    const want = (fold(turnNow(la, lb, x) + turned) < 0 ? -size : size) / times;
    return [turnBetween(la, lb, s.scale, (t) => [fold(t + turned - want), 1])];
  },
  measure: (s, [a, b], x, { flip }) =>
    times * Math.abs(fold(turnNow(s.line(a!), s.line(b!), x) + (flip ? Math.PI : 0))),
});

export const angle = between(1, ([a, b], size) => `${a} and ${b} stand at ${size}`);
/** The whole angle of something symmetric, from one side and the line it is symmetric about. */
export const fullAngle = between(2, ([a, b], size) => `the full angle of ${a} about ${b} is ${size}`);
