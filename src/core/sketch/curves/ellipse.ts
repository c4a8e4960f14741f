import { around, ellipseAngle } from "@/core/geometry/segment";
import { sub2, type Vec2 } from "@/core/geometry/vector";
import { onEllipseAt, square } from "../constraints/equations";
import type { CurveKind } from "./curve";
import type { Ellipse, EllipseArc } from "./schema";

const axes = (c: { centre: Vec2; major: Vec2; minor: Vec2 }) => ({
  centre: c.centre,
  major: sub2(c.major, c.centre),
  minor: sub2(c.minor, c.centre),
});
const half = (c: { centre: Vec2; major: Vec2; minor: Vec2 }) => [
  Math.hypot(...sub2(c.major, c.centre)),
  Math.hypot(...sub2(c.minor, c.centre)),
];

export const ellipse: CurveKind<Ellipse> = {
  points: () => ["centre", "major", "minor"],
  numbers: (c) => [...c.centre, ...c.major, ...c.minor],
  withNumbers: (c, v) => ({ ...c, centre: [v[0]!, v[1]!], major: [v[2]!, v[3]!], minor: [v[4]!, v[5]!] }),
  own: (at) => [square(at, at + 2, at + 4)],
  segment: (c) => ({ kind: "ellipse", ...axes(c), from: 0, sweep: 2 * Math.PI }),
  sizes: half,
};

/** Angle of its start in the ellipse's own axes, and the angle it sweeps, in (0, 2π]. */
export const ellipseSweep = (c: EllipseArc): [number, number] => {
  const { centre, major, minor } = axes(c);
  const from = ellipseAngle(centre, major, minor, c.start),
    to = ellipseAngle(centre, major, minor, c.end);
  return [from, around(to - from) || 2 * Math.PI];
};

export const ellipseArc: CurveKind<EllipseArc> = {
  points: () => ["centre", "major", "minor", "start", "end"],
  numbers: (c) => [...c.centre, ...c.major, ...c.minor, ...c.start, ...c.end],
  withNumbers: (c, v) => ({
    ...c,
    centre: [v[0]!, v[1]!],
    major: [v[2]!, v[3]!],
    minor: [v[4]!, v[5]!],
    start: [v[6]!, v[7]!],
    end: [v[8]!, v[9]!],
  }),
  own: (at) => [square(at, at + 2, at + 4), onEllipseAt(at + 6, at), onEllipseAt(at + 8, at)],
  segment: (c) => {
    const [from, sweep] = ellipseSweep(c);
    return { kind: "ellipse", ...axes(c), from, sweep };
  },
  sizes: half,
};
