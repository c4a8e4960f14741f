import { courseOf, sense, sharedPoint } from "./direction";
import { derived, type Dual2 } from "./dual";
import type { Pair, RelationKind } from "./kind";
import { tangent } from "./tangent";

/** A spline's end goes on in another curve with the same direction and the same curvature. */
export const curvature: RelationKind<Pair> = {
  takes: [
    ["line", "spline"],
    ["circle", "spline"],
    ["ellipse", "spline"],
    ["spline", "spline"],
  ],
  sentence: ([a, b]) => `${b} goes on from ${a} with its curvature`,
  equations: (s, of, size, values, options) => {
    const [a, b] = of,
      at = sharedPoint(s, a, b);
    if (!at) return [];
    const ca = courseOf(s, a, at),
      cb = courseOf(s, b, at),
      n = ca.slots.length;
    return [
      ...tangent.equations!(s, of, size, values, options),
      derived([...ca.slots, ...cb.slots, ...s.point(at)], (v) => {
        const p: Dual2 = [v[v.length - 2]!, v[v.length - 1]!],
          va = v.slice(0, n),
          vb = v.slice(n);
        const same = sense(ca.direction(va, p), cb.direction(vb, p));
        return ca
          .curvature(va, p)
          .sub(cb.curvature(vb, p).times(same))
          .times(s.scale * s.scale);
      }),
    ];
  },
};
