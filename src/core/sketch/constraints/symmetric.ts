import { linear, type Four, type Two } from "./equations";
import { derived, dot, length, pair, sub } from "./dual";
import type { Equation, RelationKind, Slots, Three } from "./kind";

/** Two points are mirror images in a line. */
function mirrored(s: Slots, p: Two, q: Two, l: Four): Equation[] {
  // about a line along an axis: plain sums of coordinates
  for (const k of [0, 1] as const)
    if (s.same(l[k], l[k + 2]!))
      return [linear([p[k], q[k], l[k]], [1, 1, -2], 0), linear([p[1 - k]!, q[1 - k]!], [1, -1], 0)];
  const slots = [...p, ...q, ...l];
  return [
    derived(slots, (v) => {
      // twice the middle's distance from the line
      const u = sub(pair(v, 3), pair(v, 2)),
        a = sub(pair(v, 0), pair(v, 2)),
        b = sub(pair(v, 1), pair(v, 2));
      const w = [a[0].add(b[0]), a[1].add(b[1])] as const;
      return u[0].mul(w[1]).sub(u[1].mul(w[0])).div(length(u));
    }),
    derived(slots, (v) => {
      const u = sub(pair(v, 3), pair(v, 2));
      return dot(u, sub(pair(v, 1), pair(v, 0))).div(length(u));
    }),
  ];
}

/** Mirror images of each other in the line that comes last. Of two lines the ends that look alike pair up. */
export const symmetric: RelationKind<Three> = {
  takes: [
    ["point", "point", "line"],
    ["line", "line", "line"],
    ["circle", "circle", "line"],
  ],
  sentence: ([a, b, l]) => `${a} and ${b} are symmetric about ${l}`,
  merge: (s, [a, b]) => (s.type(a) === "circle" || s.type(a) === "arc" ? [[s.radius(a), s.radius(b)]] : []),
  equations: (slots, [a, b, l], _size, values) => {
    const line = slots.line(l);
    if (slots.type(a) === "point") return mirrored(slots, slots.point(a), slots.point(b), line);
    if (slots.type(a) !== "line") return mirrored(slots, slots.centre(a), slots.centre(b), line);
    const [p, q] = [slots.line(a), slots.line(b)];
    // the ends that lie nearer to each other's images pair up
    const apart = (i: readonly [number, number], j: readonly [number, number]) => {
      const [ox, oy] = [values[line[0]]!, values[line[1]]!];
      const [ux, uy] = [values[line[2]]! - ox, values[line[3]]! - oy];
      const [px, py] = [values[i[0]]! - ox, values[i[1]]! - oy];
      const k = (2 * (px * ux + py * uy)) / (ux * ux + uy * uy || 1);
      return (k * ux - px + ox - values[j[0]]!) ** 2 + (k * uy - py + oy - values[j[1]]!) ** 2;
    };
    const [pa, pb, qa, qb] = [
      [p[0], p[1]],
      [p[2], p[3]],
      [q[0], q[1]],
      [q[2], q[3]],
    ] as const;
    const crossed = apart(pa, qb) + apart(pb, qa) < apart(pa, qa) + apart(pb, qb);
    const [from, to] = crossed ? [q.slice(2), q.slice(0, 2)] : [q.slice(0, 2), q.slice(2)];
    return [
      ...mirrored(slots, [p[0], p[1]], from as unknown as Two, line),
      ...mirrored(slots, [p[2], p[3]], to as unknown as Two, line),
    ];
  },
};
