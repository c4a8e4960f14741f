import {
  chamfer,
  circ,
  cut,
  dot,
  edge,
  extrude,
  face,
  hole,
  line,
  mirror,
  part,
  poly,
  rect,
  ring,
  row,
  sketch,
} from "../build";
import { box, disc, top, cone, SIXTH, type KnownSolid } from "./known";

const { PI, SQRT2, tan } = Math;

/** Holes and patterns of them. */
export const HOLES: readonly KnownSolid[] = [
  {
    name: "plate with a bore",
    volume: 40 * 30 * 6 - PI * 25 * 6,
    area: 2 * (1200 - 25 * PI) + 140 * 6 + 10 * PI * 6,
    centre: [20, 15, 3],
    ways: [
      part(sketch("s", "top", rect(0, 0, 40, 30), circ(20, 15, 5)), extrude("b", "s", 6)),
      part(...box(40, 30, 6), hole("h", top, 10, [[20, 15]])),
      part(...box(40, 30, 6), sketch("t", "top", circ(20, 15, 5)), cut("c", "t", "through")),
      part(...box(40, 30, 6), sketch("t", "top", [dot("p", 20, 15)]), {
        id: "h",
        kind: "hole",
        sketch: "t",
        points: [],
        diameter: 10,
        head: { kind: "plain" },
        extent: { kind: "through" },
      }),
    ],
  },
  {
    name: "blind flat hole",
    volume: 24000 - PI * 16 * 12,
    area: 2 * (1200 + 800 + 600) + 8 * PI * 12,
    ways: [
      part(...box(40, 30, 20), hole("h", top, 8, [[10, 10]], { extent: { kind: "depth", depth: 12 } })),
      part(
        ...box(40, 30, 20),
        sketch("t", { base: "top", offset: 20 }, circ(10, 10, 4)),
        cut("c", "t", 12, { reverse: true }),
      ),
      part(
        ...box(40, 30, 20),
        { id: "p", kind: "plane", by: { kind: "offset", from: top, distance: -12 } },
        hole("h", top, 8, [[10, 10]], { extent: { kind: "face", face: { datum: "p" } } }),
      ),
    ],
  },
  {
    name: "blind coned hole",
    volume: 24000 - PI * 16 * 12 - cone(4, 118),
    ways: [
      part(...box(40, 30, 20), hole("h", top, 8, [[10, 10]], { extent: { kind: "depth", depth: 12 }, tip: 118 })),
      part(
        ...box(40, 30, 20),
        sketch(
          "t",
          { base: "front", offset: -10 },
          poly([
            [10, 21],
            [14, 21],
            [14, 8],
            [10, 8 - 4 / tan((59 * PI) / 180)],
          ]),
          [line("a", [10, 0], [10, 40], "centre-line")],
        ),
        { id: "r", kind: "revolve", sketch: "t", operation: "cut", turn: { kind: "whole" } },
      ),
    ],
  },
  {
    name: "counterbored hole",
    volume: 24000 - PI * 9 * 20 - PI * (36 - 9) * 6,
    area: 2 * 2600 - 2 * 9 * PI + 6 * PI * 14 + 12 * PI * 6,
    ways: [
      part(
        ...box(40, 30, 20),
        hole("h", top, 6, [[10, 10]], { head: { kind: "counterbore", diameter: 12, depth: 6 } }),
      ),
      part(
        ...box(40, 30, 20),
        sketch("t", "top", circ(10, 10, 3)),
        cut("c", "t", "through"),
        sketch("u", { base: "top", offset: 20 }, circ(10, 10, 6)),
        cut("d", "u", 6, { reverse: true }),
      ),
    ],
  },
  {
    name: "countersunk hole",
    volume: 24000 - PI * 9 * 20 - ((PI * 3 * (36 + 18 + 9)) / 3 - PI * 9 * 3),
    area: 2 * 2600 - PI * 36 - PI * 9 + 6 * PI * 17 + PI * 9 * 3 * SQRT2,
    ways: [
      part(
        ...box(40, 30, 20),
        hole("h", top, 6, [[10, 10]], { head: { kind: "countersink", diameter: 12, angle: 90 } }),
      ),
      part(...box(40, 30, 20), hole("h", top, 6, [[10, 10]]), chamfer("c", 3, edge("h/bore/p1", "b/end"))),
    ],
  },
  {
    name: "row of holes",
    volume: 100 * 20 * 5 - 4 * PI * 4 * 5,
    area: 2 * (2000 - 16 * PI) + 240 * 5 + 4 * 4 * PI * 5,
    centre: [50, 10, 2.5],
    ways: [
      part(...box(100, 20, 5), hole("h", top, 4, [[20, 10]]), row("p", ["h"], "x", 4, 20)),
      part(
        ...box(100, 20, 5),
        hole("h", top, 4, [
          [20, 10],
          [40, 10],
          [60, 10],
          [80, 10],
        ]),
      ),
      part(...box(100, 20, 5), sketch("t", "top", circ(20, 10, 2)), cut("c", "t", "through"), {
        id: "p",
        kind: "pattern",
        of: { steps: ["c"] },
        way: { kind: "rows", first: { along: edge("b/side/l1", "b/end"), count: 4, by: "total", distance: 60 } },
      }),
    ],
  },
  {
    name: "rows in two directions",
    volume: 100 * 60 * 5 - 6 * PI * 4 * 5,
    area: 2 * (6000 - 24 * PI) + 320 * 5 + 6 * 4 * PI * 5,
    ways: [
      part(
        ...box(100, 60, 5),
        hole("h", top, 4, [[20, 15]]),
        row("p", ["h"], "x", 3, 30, { second: { axis: "y", count: 2, distance: 30 } }),
      ),
      part(
        ...box(100, 60, 5),
        { id: "q", kind: "plane", by: { kind: "midway", a: face("b/side/l1"), b: face("b/side/l3") } },
        hole("h", top, 4, [[20, 15]]),
        row("p", ["h"], "x", 3, 30),
        mirror("m", { datum: "q" }, ["h", "p"]),
      ),
    ],
  },
  {
    name: "flange",
    volume: PI * 900 * 6 - 6 * PI * 9 * 6,
    area: 2 * PI * (900 - 54) + 60 * PI * 6 + 36 * PI * 6,
    centre: [0, 0, 3],
    ways: [
      part(...disc(30, 6), hole("h", top, 6, [[20, 0]]), ring("p", ["h"], 6)),
      part(...disc(30, 6), hole("h", top, 6, SIXTH)),
      part(
        sketch("s", "top", circ(0, 0, 30, "o"), ...SIXTH.map((p, i) => circ(p[0], p[1], 3, `c${i}`))),
        extrude("b", "s", 6),
      ),
      part(...disc(30, 6), hole("h", top, 6, [[20, 0]]), {
        id: "p",
        kind: "pattern",
        of: { steps: ["h"] },
        way: { kind: "ring", about: face("b/side/c1"), count: 6, by: "step", angle: 60 },
      }),
    ],
  },
  {
    name: "ring with places left empty",
    volume: PI * 900 * 6 - 4 * PI * 9 * 6,
    ways: [
      part(...disc(30, 6), hole("h", top, 6, [[20, 0]]), ring("p", ["h"], 6, { skip: ["2", "5"] })),
      part(...disc(30, 6), hole("h", top, 6, [SIXTH[0]!, SIXTH[2]!, SIXTH[3]!, SIXTH[5]!])),
    ],
  },
];
