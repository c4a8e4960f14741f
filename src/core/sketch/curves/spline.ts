import { splineBeziers } from "@/core/geometry/spline";
import type { CurveKind } from "./curve";
import type { Spline } from "./schema";

export const knotsOf = (c: Spline): readonly number[] => c.knots ?? c.through.map((_, i) => i);

/** Its points are called start, p1, p2 … end, then the handles it has. */
export const spline: CurveKind<Spline> = {
  points: (c) => [
    ...c.through.map((_, i) => (i === 0 ? "start" : i === c.through.length - 1 ? "end" : `p${i}`)),
    ...(c.startHandle ? ["start-handle"] : []),
    ...(c.endHandle ? ["end-handle"] : []),
  ],
  numbers: (c) => [...c.through.flat(), ...(c.startHandle ?? []), ...(c.endHandle ?? [])],
  withNumbers: (c, v) => {
    const at = (i: number): [number, number] => [v[2 * i]!, v[2 * i + 1]!];
    const n = c.through.length;
    return {
      ...c,
      through: c.through.map((_, i) => at(i)),
      ...(c.startHandle && { startHandle: at(n) }),
      ...(c.endHandle && { endHandle: at(n + (c.startHandle ? 1 : 0)) }),
    };
  },
  segment: (c) => ({ kind: "spline", beziers: splineBeziers(c.through, knotsOf(c), c.startHandle, c.endHandle) }),
  sizes: (c) => c.through.slice(1).map((p, i) => Math.hypot(p[0] - c.through[i]![0], p[1] - c.through[i]![1])),
};
