import { around } from "@/core/geometry/segment";
import { pointCircle } from "../constraints/equations";
import type { CurveKind } from "./curve";
import type { Arc } from "./schema";

const arcRadius = (c: Arc): number =>
  (Math.hypot(c.start[0] - c.centre[0], c.start[1] - c.centre[1]) +
    Math.hypot(c.end[0] - c.centre[0], c.end[1] - c.centre[1])) /
  2;
/** Angle of its start and the angle it sweeps, in (0, 2π]. */
export const arcSweep = (c: Arc): [number, number] => {
  const from = Math.atan2(c.start[1] - c.centre[1], c.start[0] - c.centre[0]),
    to = Math.atan2(c.end[1] - c.centre[1], c.end[0] - c.centre[0]);
  return [from, around(to - from) || 2 * Math.PI];
};

/** Counter-clockwise from start to end; both ends are held at its radius. */
export const arc: CurveKind<Arc> = {
  points: () => ["start", "end", "centre"],
  numbers: (c) => [...c.start, ...c.end, ...c.centre, arcRadius(c)],
  withNumbers: (c, v) => ({ ...c, start: [v[0]!, v[1]!], end: [v[2]!, v[3]!], centre: [v[4]!, v[5]!] }),
  radius: 6,
  own: (at) => [
    pointCircle([at, at + 1], [at + 4, at + 5], at + 6),
    pointCircle([at + 2, at + 3], [at + 4, at + 5], at + 6),
  ],
  segment: (c) => {
    const [from, sweep] = arcSweep(c);
    return { kind: "arc", centre: c.centre, radius: arcRadius(c), from, sweep };
  },
  sizes: (c) => [arcRadius(c), Math.hypot(c.end[0] - c.start[0], c.end[1] - c.start[1])],
};
