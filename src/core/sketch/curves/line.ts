import type { CurveKind } from "./curve";
import type { Line } from "./schema";

export const line: CurveKind<Line> = {
  points: () => ["start", "end"],
  numbers: (c) => [c.start[0], c.start[1], c.end[0], c.end[1]],
  withNumbers: (c, v) => ({ ...c, start: [v[0]!, v[1]!], end: [v[2]!, v[3]!] }),
  segment: (c) => ({ kind: "line", a: c.start, b: c.end }),
  sizes: (c) => [Math.hypot(c.end[0] - c.start[0], c.end[1] - c.start[1])],
};
