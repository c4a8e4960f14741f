import { distance, linear, pointLine, sideNow, type Rims } from "./equations";
import type { Options, Pair, RelationKind, Slots } from "./kind";

const place = (s: Slots, ref: string) => (s.type(ref) === "point" ? s.point(ref) : s.centre(ref));
/** The rims a size is taken from, in the order of its arguments. */
function rims(s: Slots, of: readonly string[], { sides }: Options): Rims {
  const round = of.filter((r) => s.type(r) === "circle" || s.type(r) === "arc");
  return round.map((r, i) => [s.radius(r), sides?.[i] === "far" ? 1 : -1]);
}
const reach = (x: Float64Array, list: Rims) => list.reduce((sum, [r, k]) => sum + k * x[r]!, 0);

/** From a point, line or round thing to the near or far side of a round one. */
export const toSide: RelationKind<Pair> = {
  takes: [
    ["point", "circle"],
    ["line", "circle"],
    ["circle", "circle"],
  ],
  sentence: ([a, b], size) => `the side of ${b} is ${size} from ${a}`,
  equations: (slots, of, size, values, o) => {
    const [a, c] = of,
      list = rims(slots, of, o);
    if (slots.type(a) === "line") {
      const off = sideNow(slots.centre(c), slots.line(a), values),
        side = off < 0 ? -1 : 1;
      const sign = off * side + reach(values, list) < 0 ? -1 : 1;
      return [
        pointLine(
          slots.centre(c),
          slots.line(a),
          side * sign * size,
          list.map(([r, k]) => [r, k * side]),
        ),
      ];
    }
    const p = place(slots, a),
      q = slots.centre(c);
    const now = Math.hypot(values[q[0]]! - values[p[0]]!, values[q[1]]! - values[p[1]]!) + reach(values, list);
    return [distance(p, q, now < 0 ? -size : size, list)];
  },
  measure: (s, of, x, o) => {
    const [a, c] = of,
      list = rims(s, of, o);
    if (s.type(a) === "line") return Math.abs(Math.abs(sideNow(s.centre(c), s.line(a), x)) + reach(x, list));
    const p = place(s, a),
      q = s.centre(c);
    return Math.abs(Math.hypot(x[q[0]]! - x[p[0]]!, x[q[1]]! - x[p[1]]!) + reach(x, list));
  },
};

/** The wall between two round things about one centre: the difference of their radii. */
export const ring: RelationKind<Pair> = {
  takes: [["circle", "circle"]],
  sentence: ([a, b], size) => `${a} and ${b} are ${size} apart in radius`,
  equations: (s, [a, b], size, x) => {
    const p = s.radius(a),
      q = s.radius(b);
    return [linear([p, q], x[p]! > x[q]! ? [1, -1] : [-1, 1], size)];
  },
  measure: (s, [a, b], x) => Math.abs(x[s.radius(a)]! - x[s.radius(b)]!),
};
