import { turnBetween, turnNow } from "./equations";
import type { RelationKind } from "./kind";

/** Folds into (-π, π]. */
const fold = (t: number) => t - 2 * Math.PI * Math.ceil((t - Math.PI) / (2 * Math.PI));

/** The angle between two lines as drawn (0 to 180°); `flip` reverses the second. Keeps the sense it has. */
export const angle: RelationKind = {
  takes: [["line", "line"]],
  quantity: "angle",
  sentence: ([a, b], size) => `${a} and ${b} stand at ${size}`,
  equations: (s, [a, b], size, x, flip) => {
    const la = s.line(a!), lb = s.line(b!);
    const turned = flip ? Math.PI : 0;
    const want = fold(turnNow(la, lb, x) + turned) < 0 ? -size : size;
    return [turnBetween(la, lb, s.scale, (t) => [fold(t + turned - want), 1])];
  },
  measure: (s, [a, b], x, flip) => Math.abs(fold(turnNow(s.line(a!), s.line(b!), x) + (flip ? Math.PI : 0))),
};
