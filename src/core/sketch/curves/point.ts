import type { CurveKind } from "./curve";
import type { PointCurve } from "./schema";

/** A point on its own; its reference is its id. */
export const point: CurveKind<PointCurve> = {
  points: () => [],
  numbers: (c) => [...c.at],
  withNumbers: (c, v) => ({ ...c, at: [v[0]!, v[1]!] }),
  segment: () => undefined,
  sizes: () => [],
};
