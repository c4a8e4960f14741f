import { derived, pair, sub, cross, dot } from "./dual";
import type { One, RelationKind, Slots } from "./kind";

const sweepNow = (s: Slots, ref: string, x: Float64Array): number => {
  const [sx, sy, ex, ey, cx, cy] = s.all(ref).map((i) => x[i]!) as [number, number, number, number, number, number];
  const t = Math.atan2(ey - cy, ex - cx) - Math.atan2(sy - cy, sx - cx);
  return t <= 0 ? t + 2 * Math.PI : t;
};

/** Length along an arc. */
export const arcLength: RelationKind<One> = {
  takes: [["arc"]],
  sentence: ([a], size) => `${a} is ${size} long`,
  equations: (s, [a], size) => [
    derived(s.all(a), (duals) => {
      const c = pair(duals, 2),
        from = sub(pair(duals, 0), c),
        to = sub(pair(duals, 1), c);
      const turn = cross(from, to).atan2(dot(from, to));
      return turn
        .plus(turn.v <= 0 ? 2 * Math.PI : 0)
        .mul(duals[6]!)
        .plus(-size);
    }),
  ],
  measure: (s, [a], x) => x[s.radius(a)]! * sweepNow(s, a, x),
};
