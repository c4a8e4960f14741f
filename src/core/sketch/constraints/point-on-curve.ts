import { pointCircle, pointLine } from "./equations";
import type { RelationKind, Slots } from "./kind";

/** A point on a line that runs along an axis is a plain identity of coordinates. */
function alongAxis(s: Slots, p: string, l: string): [number, number][] {
  const [px, py] = s.point(p), [sx, sy, ex, ey] = s.line(l);
  if (s.same(sy, ey)) return [[py, sy]];
  if (s.same(sx, ex)) return [[px, sx]];
  return [];
}

export const pointOnCurve: RelationKind = {
  takes: [["point", "line"], ["point", "circle"]],
  sentence: ([p, c]) => `${p} lies on ${c}`,
  mergesLate: true,
  merge: (s, [p, c]) => (s.type(c!) === "line" ? alongAxis(s, p!, c!) : []),
  equations: (s, [p, c]) => {
    if (s.type(c!) === "circle") return [pointCircle(s.point(p!), s.centre(c!), s.radius(c!))];
    return alongAxis(s, p!, c!).length ? [] : [pointLine(s.point(p!), s.line(c!), 0)];
  },
};
