import type { Vec2 } from "@/core/geometry/vector";
import { arc, circ, edge, extrude, fillet, line, part, poly, rect, revolve, shell, sketch } from "../build";
import { box, disc, upright, type KnownSolid } from "./known";

const { PI, cos, max, tan } = Math;

/** What a rounding of radius r leaves away in a square corner: its area, and how far its centre lies from the walls. */
const spandrel = (r: number) => {
  const area = (1 - PI / 4) * r * r;
  return { area, centre: r === 0 ? 0 : (r ** 3 / 2 - ((PI * r * r) / 4) * (r - (4 * r) / (3 * PI))) / area };
};

/** A box with rounded uprights and a rounded rim below: no upright is sharper than the rim. */
function tub(w: number, d: number, h: number, upright: number, rim: number): number {
  const { area, centre } = spandrel(rim);
  const straight = 2 * (w + d) - 8 * upright;
  return (w * d - (4 - PI) * upright ** 2) * h - area * straight - area * 2 * PI * (upright - centre);
}

const tubWalls = (w: number, d: number, h: number, round: number, rim: number, wall: number): KnownSolid => ({
  name: `tub ${w} × ${d} × ${h}, uprights R${round}, rim R${rim}, wall ${wall}`,
  volume:
    tub(w, d, h, round, rim) - tub(w - 2 * wall, d - 2 * wall, h - wall, max(round - wall, 0), max(rim - wall, 0)),
  ways: [
    part(
      ...box(w, d, h),
      fillet("f", round, upright(1, 2), upright(2, 3), upright(3, 4), upright(4, 1)),
      fillet("g", rim, edge("b/side/l1", "b/start")),
      shell("h", wall, ["b/end"]),
    ),
  ],
});

/** An angle with a rounded inner corner, hollowed from above: a hollow corner grows by the wall. */
const angleWalls = (round: number, wall: number): KnownSolid => {
  const area = (w: number, d: number, notchW: number, notchD: number, r: number) =>
    w * d - notchW * notchD + (1 - PI / 4) * r * r;
  return {
    name: `angle with a hollow corner R${round}, wall ${wall}`,
    volume: area(60, 40, 35, 22, round) * 20 - area(60 - 2 * wall, 40 - 2 * wall, 35, 22, round + wall) * (20 - wall),
    ways: [
      part(
        sketch("s", "top", [
          line("l1", [0, 0], [60, 0]),
          line("l2", [60, 0], [60, 18]),
          line("l3", [60, 18], [25 + round, 18]),
          arc("a", [25 + round, 18 + round], [25, 18 + round], [25 + round, 18]),
          line("l4", [25, 18 + round], [25, 40]),
          line("l5", [25, 40], [0, 40]),
          line("l6", [0, 40], [0, 0]),
        ]),
        extrude("b", "s", 20),
        shell("h", wall, ["b/end"]),
      ),
    ],
  };
};

/** A round boss on a plate with a rounding at its foot, hollowed from below. */
const bossWalls = (radius: number, rise: number, foot: number, wall: number): KnownSolid => {
  const { area, centre } = spandrel(foot),
    inner = spandrel(foot + wall);
  const boss = PI * radius ** 2 * rise + area * 2 * PI * (radius + centre),
    hollow = PI * (radius - wall) ** 2 * rise + inner.area * 2 * PI * (radius - wall + inner.centre);
  const sharp = PI * (radius - wall) ** 2 * rise;
  return {
    name: `plate with a boss ⌀${2 * radius} × ${rise}, foot R${foot}, wall ${wall}`,
    volume: 80 * 60 * 14 + boss - (80 - 2 * wall) * (60 - 2 * wall) * (14 - wall) - (foot ? hollow : sharp),
    ways: [
      part(
        ...box(80, 60, 14),
        sketch("t", { base: "top", offset: 14 }, circ(40, 30, radius)),
        extrude("o", "t", rise),
        ...(foot ? [fillet("f", foot, edge("o/side/c1", "b/end"))] : []),
        shell("h", wall, ["b/start"]),
      ),
    ],
  };
};

/** A box that narrows upwards, hollowed from below or from above. */
const draftedWalls = (degrees: number, wall: number, open: "b/start" | "b/end"): KnownSolid => {
  const slope = tan((degrees * PI) / 180),
    aside = wall / cos((degrees * PI) / 180);
  const between = (low: number, high: number, lessen: number) => {
    const at = (z: number) => (60 - 2 * z * slope - 2 * lessen) * (40 - 2 * z * slope - 2 * lessen);
    return ((high - low) * (at(low) + 4 * at((low + high) / 2) + at(high))) / 6;
  };
  const hollow = open === "b/start" ? between(0, 24 - wall, aside) : between(wall, 24, aside);
  return {
    name: `box with a draft of ${degrees}°, open ${open === "b/start" ? "below" : "above"}, wall ${wall}`,
    volume: between(0, 24, 0) - hollow,
    ways: [
      part(
        sketch("bs", "top", rect(0, 0, 60, 40)),
        extrude("b", "bs", 24, { draft: degrees }),
        shell("h", wall, [open]),
      ),
    ],
  };
};

/** A cover of two levels, hollowed from below. */
const steppedWalls = (wall: number): KnownSolid => ({
  name: `stepped cover, wall ${wall}`,
  volume:
    70 * 50 * 12 +
    40 * 30 * 9 -
    (70 - 2 * wall) * (50 - 2 * wall) * (12 - wall) -
    (40 - 2 * wall) * (30 - 2 * wall) * 9,
  ways: [
    part(
      ...box(70, 50, 12),
      sketch("t", { base: "top", offset: 12 }, rect(15, 10, 55, 40, "m")),
      extrude("o", "t", 9),
      shell("h", wall, ["b/start"]),
    ),
  ],
});

/** A turned cover: an outline of levels about the axis, the lowest face open. Corners stay sharp. */
const turnedWalls = (levels: readonly Vec2[], wall: number): KnownSolid => {
  const rings = (lessen: number, lower: number) =>
    levels.reduce((sum, [radius, top], i) => {
      const from = i === 0 ? 0 : levels[i - 1]![1] - lower;
      return sum + PI * (radius - lessen) ** 2 * (top - lower - from);
    }, 0);
  const outline: Vec2[] = [[0, 0]];
  levels.forEach(([radius, top], i) => outline.push([radius, i ? levels[i - 1]![1] : 0], [radius, top]));
  outline.push([0, levels.at(-1)![1]]);
  return {
    name: `turned cover of ${levels.length} levels, wall ${wall}`,
    volume: rings(0, 0) - rings(wall, wall),
    ways: [part(sketch("s", "front", poly(outline)), revolve("b", "s"), shell("h", wall, ["b/side/l1"]))],
  };
};

/** A disc with a rounded rim above, hollowed from below. */
const lidWalls = (radius: number, height: number, rim: number, wall: number): KnownSolid => {
  const lid = (r: number, h: number, f: number) => {
    const { area, centre } = spandrel(f);
    return PI * r * r * h - area * 2 * PI * (r - centre);
  };
  return {
    name: `round lid ⌀${2 * radius}, rim R${rim}, wall ${wall}`,
    volume: lid(radius, height, rim) - lid(radius - wall, height - wall, max(rim - wall, 0)),
    ways: [part(...disc(radius, height), fillet("f", rim, edge("b/side/c1", "b/end")), shell("h", wall, ["b/start"]))],
  };
};

/** Ordinary hollow parts: what a wall makes of rounded, hollow, slanted and stepped outlines. */
export const WALLS: readonly KnownSolid[] = [
  tubWalls(70, 44, 28, 8, 3, 2),
  tubWalls(70, 44, 28, 5, 3, 2),
  tubWalls(70, 44, 28, 6, 3, 1),
  tubWalls(70, 44, 28, 4, 3, 1.5),
  tubWalls(80, 50, 30, 8, 1, 2),
  tubWalls(80, 50, 30, 6, 1.5, 2.5),
  tubWalls(60, 40, 25, 1.5, 1, 2),
  tubWalls(60, 40, 25, 10, 4, 3),
  tubWalls(60, 40, 25, 10, 5, 2),
  angleWalls(6, 2),
  angleWalls(3, 3),
  angleWalls(10, 1.5),
  bossWalls(15, 12, 0, 2),
  bossWalls(15, 12, 3, 2),
  bossWalls(12, 8, 2, 3),
  bossWalls(18, 20, 6, 2),
  bossWalls(10, 6, 1, 1.5),
  draftedWalls(3, 2, "b/start"),
  draftedWalls(5, 2, "b/end"),
  draftedWalls(10, 3, "b/start"),
  draftedWalls(-4, 2, "b/end"),
  steppedWalls(2),
  steppedWalls(3.5),
  turnedWalls(
    [
      [30, 8],
      [18, 20],
    ],
    2,
  ),
  turnedWalls(
    [
      [40, 6],
      [28, 14],
      [12, 30],
    ],
    2.5,
  ),
  lidWalls(25, 16, 4, 2),
  lidWalls(25, 16, 1.5, 2),
  lidWalls(25, 16, 6, 3),
];
