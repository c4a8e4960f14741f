import { linear } from "./equations";
import type { Four, RelationKind, Three } from "./kind";

/** The step from the third to the fourth point is `factor` times that from the first to the second. */
export const spaced: RelationKind<Four> = {
  takes: [["point", "point", "point", "point"]],
  sentence: ([a, b, c, d]) => `${c} to ${d} repeats the step from ${a} to ${b}`,
  equations: (s, of, _size, _x, { factor = 1 }) => {
    const [a, b, c, d] = [s.point(of[0]), s.point(of[1]), s.point(of[2]), s.point(of[3])];
    return ([0, 1] as const).map((k) => linear([a[k], b[k], c[k], d[k]], [factor, -factor, -1, 1], 0));
  },
};

/** The second point is the first turned about the third by `factor` degrees. */
export const turned: RelationKind<Three> = {
  takes: [["point", "point", "point"]],
  sentence: ([a, b, c]) => `${b} is ${a} turned about ${c}`,
  equations: (s, of, _size, _x, { factor = 0 }) => {
    const [p, q, c] = [s.point(of[0]), s.point(of[1]), s.point(of[2])];
    const t = (factor * Math.PI) / 180,
      k = Math.cos(t),
      n = Math.sin(t);
    return [
      linear([q[0], c[0], p[0], c[0], p[1], c[1]], [1, -1, -k, k, n, -n], 0),
      linear([q[1], c[1], p[0], c[0], p[1], c[1]], [1, -1, -n, n, -k, k], 0),
    ];
  },
};
