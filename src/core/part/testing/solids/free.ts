import { segmentAt, segmentMotion, type Segment } from "@/core/geometry/segment";
import { defaultRegions, findRegions } from "@/core/sketch/regions";
import { emptySketch, type Curve } from "@/core/sketch/sketch";
import type { Vec2 } from "@/core/geometry/vector";
import { arc, circ, cut, extrude, line, mirror, part, rect, revolve, shell, sketch } from "../build";
import { box, disc, type KnownSolid } from "./known";

const { PI, sqrt, cos, sin } = Math;

/** Five points and weights of Gauss and Legendre on 0 to 1. */
const GAUSS = [
  [0.04691007703066802, 0.11846344252809454],
  [0.23076534494715845, 0.23931433524968324],
  [0.5, 0.28444444444444444],
  [0.7692346550528415, 0.23931433524968324],
  [0.953089922969332, 0.11846344252809454],
] as const;

/** Integrals over what curves enclose, by sums along them; x, y from the origin of the sketch. */
interface Enclosed {
  readonly area: number;
  readonly length: number;
  /** ∫ x, ∫ y; ∫ x², ∫ y², ∫ xy. */
  readonly x: number;
  readonly y: number;
  readonly xx: number;
  readonly yy: number;
  readonly xy: number;
  /** ∫ x along the outline. */
  readonly round: number;
}

/** Fine sums along the outlines of a sketch, in this file alone: nothing of what is tested plays a part. */
function enclosed(curves: readonly Curve[]): Enclosed {
  const sums = { area: 0, length: 0, x: 0, y: 0, xx: 0, yy: 0, xy: 0, round: 0 };
  const along = (segment: Segment, t: number, weight: number): void => {
    const [x, y] = segmentAt(segment, t),
      [dx, dy] = segmentMotion(segment, t)[0],
      length = Math.hypot(dx, dy) * weight;
    sums.length += length;
    sums.round += x * length;
    sums.area += x * dy * weight;
    sums.x += (x * x * dy * weight) / 2;
    sums.y -= (y * y * dx * weight) / 2;
    sums.xx += (x ** 3 * dy * weight) / 3;
    sums.yy -= (y ** 3 * dx * weight) / 3;
    sums.xy += (x * x * y * dy * weight) / 2;
  };
  for (const region of defaultRegions(findRegions({ ...emptySketch("top"), curves: [...curves] })))
    for (const segment of [region.outer, ...region.holes].flat()) {
      const pieces = segment.kind === "spline" ? 16 * segment.beziers.length : 64;
      for (let i = 0; i < pieces; i++)
        for (const [at, weight] of GAUSS) along(segment, (i + at) / pieces, weight / pieces);
    }
  return sums;
}

/** A prism on the top plane over what curves enclose. */
export function prismOver(name: string, curves: readonly Curve[], depth: number): KnownSolid {
  const plane = enclosed(curves),
    volume = plane.area * depth,
    centre = [plane.x / plane.area, plane.y / plane.area, depth / 2] as const;
  const xx = depth * plane.xx - volume * centre[0] ** 2,
    yy = depth * plane.yy - volume * centre[1] ** 2,
    zz = (volume * depth ** 2) / 12;
  return {
    name,
    volume,
    area: 2 * plane.area + plane.length * depth,
    centre,
    moments: [yy + zz, xx + zz, xx + yy],
    ways: [part(sketch("s", "top", [...curves]), extrude("b", "s", depth))],
  };
}

/** A whole turn about the y axis of what curves enclose on the front plane, by the rules of Pappus and Guldin. */
function turnedFrom(name: string, curves: readonly Curve[]): KnownSolid {
  const plane = enclosed(curves);
  return {
    name,
    volume: 2 * PI * plane.x,
    area: 2 * PI * plane.round,
    ways: [part(sketch("s", "front", [...curves]), revolve("b", "s"))],
  };
}

const ellipse = (centre: Vec2, a: number, b: number, degrees = 0, id = "e"): Curve => {
  const turn = (degrees * PI) / 180;
  return {
    id,
    kind: "ellipse",
    centre: [...centre],
    major: [centre[0] + a * cos(turn), centre[1] + a * sin(turn)],
    minor: [centre[0] - b * sin(turn), centre[1] + b * cos(turn)],
  };
};
const spline = (id: string, ...through: [number, number][]): Curve => ({ id, kind: "spline", through });
const halfEllipse = (a: number, b: number): Curve[] => [
  {
    id: "e",
    kind: "ellipse-arc",
    centre: [0, 0],
    major: [a, 0],
    minor: [0, b],
    start: [a, 0],
    end: [-a, 0],
  },
  line("l", [-a, 0], [a, 0]),
];
const waved: Curve[] = [
  spline("p", [0, 40], [20, 50], [50, 35], [80, 45], [100, 40]),
  line("l1", [100, 40], [100, 0]),
  line("l2", [100, 0], [0, 0]),
  line("l3", [0, 0], [0, 40]),
];
const blade: Curve[] = [
  spline("p", [0, 0], [15, 9], [45, 11], [80, 3]),
  spline("q", [80, 3], [50, -4], [20, -7], [0, 0]),
];
const bottle: Curve[] = [
  line("l1", [0, 0], [22, 0]),
  spline("p", [22, 0], [30, 15], [14, 40], [18, 60]),
  line("l2", [18, 60], [0, 60]),
  line("l3", [0, 60], [0, 0]),
];

/** What two rods share that cross at right angles, the thinner one whole: 8 ∫ √(R² - x²) √(r² - x²) dx, 0 to r. */
function crossed(wide: number, thin: number): number {
  const steps = 4000;
  let sum = 0;
  // x = r sin t makes it smooth and periodic, so that the trapezium rule is exact
  for (let i = 0; i < steps; i++) {
    const t = ((i + 0.5) / steps) * (PI / 2);
    sum += sqrt(wide ** 2 - (thin * sin(t)) ** 2) * (thin * cos(t)) ** 2;
  }
  return (8 * sum * PI) / 2 / steps;
}

/** A parallel curve inside one that is smooth and nowhere bent tighter: area less length times distance and π d². */
const inset = (of: Enclosed, by: number): number => of.area - of.length * by + PI * by * by;

const oval = [ellipse([3, 4], 40, 10)];
const wideOval = [ellipse([0, 0], 30, 20)];

/** Bodies with walls that are neither flat nor round: ellipses, splines, and what curved faces cut of each other. */
export const FREE: readonly KnownSolid[] = [
  { ...prismOver("elliptic prism", oval, 10), volume: PI * 4000, centre: [3, 4, 5] },
  prismOver("elliptic prism, turned", [ellipse([-5, 2], 25, 11, 30)], 17),
  prismOver("ellipse with a round bore", [...wideOval, ...circ(0, 0, 8)], 12),
  prismOver("plate with an elliptic window", [...rect(-40, -30, 40, 30), ellipse([5, 3], 20, 7, 20)], 6),
  prismOver("oval with two bores", [...wideOval, ...circ(-12, 0, 4, "c1"), ...circ(12, 2, 3, "c2")], 8),
  { ...prismOver("half an ellipse", halfEllipse(24, 9), 14), volume: (PI * 24 * 9 * 14) / 2 },
  prismOver("plate with a waved edge", waved, 10),
  prismOver("blade of two splines", blade, 35),
  prismOver(
    "plate with a waved window",
    [...rect(-10, -20, 100, 30), ...blade.map((c) => ({ ...c, id: `w${c.id}` }))],
    5,
  ),
  prismOver(
    "arc and spline",
    [arc("a", [0, 0], [10, 0], [-10, 0]), spline("p", [-10, 0], [-3, -8], [4, -5], [10, 0])],
    9,
  ),
  {
    name: "waved plate and its mirror image",
    volume: 2 * enclosed(waved).area * 10,
    centre: [0, enclosed(waved).y / enclosed(waved).area, 5],
    ways: [part(sketch("s", "top", waved), extrude("b", "s", 10), mirror("m", { datum: "right" }))],
  },
  turnedFrom("ring of an ellipse", [ellipse([30, 0], 10, 5)]),
  turnedFrom("ring of a slanted ellipse", [ellipse([30, 4], 12, 5, 35)]),
  turnedFrom("turned from a spline", bottle),
  {
    ...turnedFrom("third of a ring of an ellipse", [ellipse([30, 0], 10, 5)]),
    volume: (2 * PI * 30 * PI * 50) / 3,
    area: (2 * PI * enclosed([ellipse([30, 0], 10, 5)]).round) / 3 + 2 * PI * 50,
    ways: [
      part(sketch("s", "front", [ellipse([30, 0], 10, 5)]), revolve("b", "s", { turn: { kind: "angle", angle: 120 } })),
    ],
  },
  {
    name: "elliptic cup",
    volume: PI * 600 * 25 - inset(enclosed(wideOval), 2) * 23,
    ways: [part(sketch("s", "top", wideOval), extrude("b", "s", 25), shell("h", 2, ["b/end"]))],
  },
  {
    name: "rod cut off at a slant",
    volume: PI * 100 * 30,
    area: PI * 100 * (1 + sqrt(1.25)) + 20 * PI * 30,
    ways: [
      part(
        ...disc(10, 60),
        sketch("t", "front", [
          line("l1", [-40, 10], [40, 50]),
          line("l2", [40, 50], [40, 90]),
          line("l3", [40, 90], [-40, 90]),
          line("l4", [-40, 90], [-40, 10]),
        ]),
        cut("c", "t", "through", { extent: { kind: "both", depth: 50 } }),
      ),
    ],
  },
  {
    name: "rod with a cross hole",
    volume: PI * 100 * 40 - crossed(10, 4),
    ways: [
      part(
        ...disc(10, 40),
        sketch("t", "front", circ(0, 20, 4)),
        cut("c", "t", "through", { extent: { kind: "both", depth: 30 } }),
      ),
    ],
  },
  {
    name: "ball with a bore",
    volume: (PI * 24 ** 3) / 6,
    ways: [
      part(
        sketch("s", "front", [arc("a", [0, 0], [0, -13], [0, 13]), line("l", [0, 13], [0, -13])]),
        revolve("b", "s"),
        sketch("t", "top", circ(0, 0, 5)),
        cut("c", "t", "through", { extent: { kind: "both", depth: 30 } }),
      ),
    ],
  },
  {
    name: "elliptic boss on a plate",
    volume: 60 * 40 * 8 + PI * 20 * 9 * 15,
    area: 2 * 60 * 40 + 200 * 8 + enclosed([ellipse([30, 20], 20, 9)]).length * 15,
    ways: [
      part(
        ...box(60, 40, 8),
        sketch("t", { base: "top", offset: 8 }, [ellipse([30, 20], 20, 9)]),
        extrude("o", "t", 15),
      ),
    ],
  },
];
