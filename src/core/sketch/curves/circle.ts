import type { CurveKind } from "./curve";
import type { Circle } from "./schema";

export const circle: CurveKind<Circle> = {
  points: () => ["centre"],
  numbers: (c) => [c.centre[0], c.centre[1], c.radius],
  withNumbers: (c, v) => ({ ...c, centre: [v[0]!, v[1]!], radius: v[2]! }),
  radius: 2,
  segment: (c) => ({ kind: "arc", centre: c.centre, radius: c.radius, from: 0, sweep: 2 * Math.PI }),
  sizes: (c) => [c.radius],
};
