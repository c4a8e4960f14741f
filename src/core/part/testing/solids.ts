import type { PartDocument } from "../document";
import {
  arc,
  chamfer,
  circ,
  cut,
  dot,
  edge,
  extrude,
  face,
  fillet,
  hole,
  line,
  mirror,
  part,
  poly,
  rect,
  revolve,
  ring,
  row,
  shell,
  sketch,
  withParameters,
} from "./build";

/** A body with what closed formulas say of it, and one or more ways of building it. mm. */
export interface KnownSolid {
  readonly name: string;
  readonly volume: number;
  readonly area?: number;
  readonly centre?: readonly [number, number, number];
  readonly bodies?: number;
  readonly ways: readonly PartDocument[];
}

const { PI, SQRT2, tan, sqrt } = Math;
/**
 * A box on the top plane with its corner at the origin: sides l1 (y = 0), l2 (x = w), l3, l4; start below, end above.
 */
const box = (w: number, d: number, h: number, id = "b") =>
  [sketch(`${id}s`, "top", rect(0, 0, w, d)), extrude(id, `${id}s`, h)] as const;
const disc = (r: number, h: number, id = "b") =>
  [sketch(`${id}s`, "top", circ(0, 0, r)), extrude(id, `${id}s`, h)] as const;
const top = face("b/end");
/** What a coned bottom of a whole angle (degrees) adds below a hole of radius r. */
const cone = (r: number, degrees: number) => (PI * r ** 3) / 3 / tan((degrees * PI) / 360);
const rim = (which: string) => edge(`b/side/${which}`, "b/end");
const upright = (a: number, b: number) => edge(`b/side/l${a}`, `b/side/l${b}`);
const SIXTH = [0, 1, 2, 3, 4, 5].map((k) => [20 * Math.cos((k * PI) / 3), 20 * Math.sin((k * PI) / 3)] as const);

export const SOLIDS: readonly KnownSolid[] = [
  ...[10, 12].map((r): KnownSolid => {
    // a step of 15 × 30, then r × 30, made of two half turns; a keyway 6 wide and 4 deep over 20 of the thinner end
    const keyway = 20 * (3 * sqrt(r * r - 9) + r * r * Math.asin(3 / r) - 6 * (r - 4));
    const profile = poly([
      [0, 0],
      [15, 0],
      [15, 30],
      [r, 30],
      [r, 60],
      [0, 60],
    ]);
    const halves = [
      sketch("s", "front", profile),
      revolve("r", "s", { turn: { kind: "angle", angle: 180 } }),
      mirror("m", { datum: "front" }),
    ];
    return {
      name: `shaft of two halves with a keyway, ${r}`,
      volume: PI * 30 * (225 + r * r) - keyway,
      ways: [
        part(...halves, sketch("k", { base: "right", offset: r - 4 }, rect(-3, 35, 3, 55)), cut("c", "k", 30)),
        part(
          ...halves,
          sketch("k", { base: "front", offset: 4 - r }, rect(-3, 35, 3, 55)),
          cut("c", "k", 30, { reverse: true }),
        ),
      ],
    };
  }),
  {
    name: "pad leaning inwards on both sides of its sketch",
    // twice the frustum of a square pyramid
    volume: (2 * 10 * (2500 + (50 - 20 * tan(PI / 36)) ** 2 + 50 * (50 - 20 * tan(PI / 36)))) / 3,
    centre: [25, 25, 0],
    ways: [
      part(
        sketch("s", "top", rect(0, 0, 50, 50)),
        extrude("b", "s", 10, { extent: { kind: "both", depth: 20 }, draft: 5 }),
      ),
      part(
        sketch("s", "top", rect(0, 0, 50, 50)),
        extrude("b", "s", 10, { extent: { kind: "two", depth: 10, back: 10 }, draft: 5 }),
      ),
    ],
  },
  {
    name: "box",
    volume: 6000,
    area: 2200,
    centre: [5, 10, 15],
    ways: [
      part(...box(10, 20, 30)),
      part(sketch("s", "front", rect(0, 0, 10, 30)), extrude("e", "s", 20, { reverse: true })),
      part(sketch("s", "top", rect(0, 0, 5, 20)), extrude("b", "s", 30), mirror("m", face("b/side/l2"))),
      part(
        sketch("s", { base: "top", offset: 15 }, rect(0, 0, 10, 20)),
        extrude("b", "s", 1, { extent: { kind: "both", depth: 30 } }),
      ),
      part(
        sketch("s", { base: "top", offset: 10 }, rect(0, 0, 10, 20)),
        extrude("b", "s", 1, { extent: { kind: "two", depth: 20, back: 10 } }),
      ),
    ],
  },
  {
    name: "box raised by its own face",
    volume: 6000,
    area: 2200,
    centre: [5, 10, 15],
    ways: [
      part(...box(10, 20, 25), extrude("f", "", 5, { sketch: undefined, face: top })),
      part(...box(10, 20, 35), cut("f", "", 5, { sketch: undefined, face: top, reverse: true })),
      part(
        ...box(10, 12, 30),
        extrude("f", "", 3, { sketch: undefined, face: face("b/side/l3") }),
        extrude("g", "", 5, { sketch: undefined, face: face("f/end") }),
      ),
      part(
        sketch("s", { base: "top", offset: 30 }, rect(0, 0, 10, 20)),
        extrude("b", "s", 3, { reverse: true }),
        extrude("f", "", 1, {
          sketch: undefined,
          face: face("b/end"),
          reverse: true,
          extent: { kind: "face", face: { datum: "top" } },
        }),
      ),
    ],
  },
  {
    name: "wall with a corner",
    volume: 2 * 50 * 10,
    area: 2 * 100 + (50 + 50 + 4) * 10,
    ways: [
      part(
        sketch("s", "top", [line("l1", [0, 0], [30, 0]), line("l2", [30, 0], [30, 20])]),
        extrude("b", "s", 10, { thin: { thickness: 2, side: "middle" } }),
      ),
      part(
        sketch("s", "top", [line("l1", [0, -1], [31, -1]), line("l2", [31, 20], [31, -1])]),
        extrude("b", "s", 10, { thin: { thickness: 2, side: "inside" } }),
      ),
      part(
        sketch(
          "s",
          "top",
          poly([
            [0, -1],
            [31, -1],
            [31, 20],
            [29, 20],
            [29, 1],
            [0, 1],
          ]),
        ),
        extrude("b", "s", 10),
      ),
    ],
  },
  {
    name: "wall round a bend",
    volume: 3 * (20 + (PI / 2) * 10 + 15) * 8,
    ways: [
      part(
        sketch("s", "top", [
          line("l1", [-20, 0], [0, 0]),
          arc("a1", [0, 10], [0, 0], [10, 10]),
          line("l2", [10, 10], [10, 25]),
        ]),
        extrude("b", "s", 8, { thin: { thickness: 3, side: "middle" } }),
      ),
    ],
  },
  {
    name: "wall carried on to a boss",
    volume: 8 * (PI * 100 + 4 * 30 - 2 * (sqrt(96) + 50 * Math.asin(0.2))),
    ways: [
      part(
        ...disc(10, 8),
        sketch("t", "top", [line("l1", [30, 0], [10, 0])]),
        extrude("w", "t", 8, { thin: { thickness: 4, side: "middle" } }),
      ),
      part(
        ...disc(10, 8),
        sketch("t", "top", [line("l1", [30, 0], [22, 0])]),
        extrude("w", "t", 8, { thin: { thickness: 4, side: "middle", ends: { "l1.end": "first" } } }),
      ),
      part(...disc(10, 8), sketch("t", "top", rect(0, -2, 30, 2)), extrude("w", "t", 8)),
    ],
  },
  {
    name: "wall that goes on through a block to the next",
    volume: 2 * 4 * 20 * 6 + 2 * 6 * (10 + 16),
    ways: [
      part(
        sketch("s", "top", rect(10, 0, 14, 20), rect(30, 0, 34, 20, "m")),
        extrude("b", "s", 6),
        sketch("t", "top", [line("w", [0, 5], [5, 5])]),
        extrude("e", "t", 6, { thin: { thickness: 2, side: "middle", ends: { "w.end": "next" } } }),
      ),
    ],
  },
  {
    name: "wall that stops at the first",
    volume: 2 * 4 * 20 * 6 + 2 * 6 * 10,
    bodies: 2,
    ways: [
      part(
        sketch("s", "top", rect(10, 0, 14, 20), rect(30, 0, 34, 20, "m")),
        extrude("b", "s", 6),
        sketch("t", "top", [line("w", [0, 5], [5, 5])]),
        extrude("e", "t", 6, { thin: { thickness: 2, side: "middle", ends: { "w.end": "first" } } }),
      ),
    ],
  },
  // half of the wall's width meets a near block, half one farther off
  {
    name: "wall between two faces, the near one",
    volume: 300 * 6 + 2 * 6 * 10,
    ways: [
      part(
        sketch(
          "s",
          "top",
          poly([
            [10, 0],
            [20, 0],
            [20, -10],
            [30, -10],
            [30, 10],
            [10, 10],
          ]),
        ),
        extrude("b", "s", 6, {}),
        sketch("t", "top", [line("w", [0, 0], [5, 0])]),
        extrude("e", "t", 6, { thin: { thickness: 2, side: "middle", ends: { "w.end": "first" } } }),
      ),
    ],
  },
  {
    name: "wall between two faces, the far one",
    volume: 300 * 6 + 6 * (10 + 20),
    ways: [
      part(
        sketch(
          "s",
          "top",
          poly([
            [10, 0],
            [20, 0],
            [20, -10],
            [30, -10],
            [30, 10],
            [10, 10],
          ]),
        ),
        extrude("b", "s", 6, {}),
        sketch("t", "top", [line("w", [0, 0], [5, 0])]),
        extrude("e", "t", 6, { thin: { thickness: 2, side: "middle", ends: { "w.end": "next" } } }),
      ),
    ],
  },
  {
    name: "box by parameters",
    volume: 6000,
    area: 2200,
    centre: [5, 10, 15],
    ways: [
      withParameters(part(sketch("s", "top", rect(0, 0, 10, 20)), extrude("b", "s", "=3*w")), { name: "w", value: 10 }),
    ],
  },
  {
    name: "cylinder",
    volume: PI * 64 * 12,
    area: 2 * PI * 64 + 2 * PI * 8 * 12,
    centre: [0, 0, 6],
    ways: [
      part(...disc(8, 12)),
      part(sketch("s", "front", rect(0, 0, 8, 12)), revolve("r", "s")),
      part(
        sketch("s", "front", rect(0, 0, 8, 12)),
        revolve("r", "s", { turn: { kind: "angle", angle: 180 } }),
        mirror("m", { datum: "front" }),
      ),
      part(
        sketch("s", "front", rect(0, 0, 8, 12)),
        revolve("r", "s", { turn: { kind: "two", angle: 200, back: 160 } }),
      ),
      part(sketch("s", "front", rect(0, 0, 8, 12), [line("a", [0, -5], [0, 20], "centre-line")]), {
        id: "r",
        kind: "revolve",
        sketch: "s",
        operation: "add",
        turn: { kind: "whole" },
      }),
    ],
  },
  {
    name: "tube",
    volume: PI * (100 - 36) * 15,
    area: 2 * PI * (100 - 36) + 2 * PI * 16 * 15,
    centre: [0, 0, 7.5],
    ways: [
      part(sketch("s", "top", circ(0, 0, 10), circ(0, 0, 6, "c2")), extrude("b", "s", 15)),
      part(...disc(10, 15), hole("h", top, 12, [[0, 0]])),
      part(sketch("s", "front", rect(6, 0, 10, 15)), revolve("r", "s")),
      part(sketch("s", "top", circ(0, 0, 10)), extrude("b", "s", 15, { thin: { thickness: 4, side: "inside" } })),
      part(sketch("s", "top", circ(0, 0, 6)), extrude("b", "s", 15, { thin: { thickness: 4, side: "outside" } })),
      part(sketch("s", "top", circ(0, 0, 8)), extrude("b", "s", 15, { thin: { thickness: 4, side: "middle" } })),
      part(
        sketch("s", "front", [line("l", [10, 0], [10, 15])]),
        revolve("r", "s", { thin: { thickness: 4, side: "inside" } }),
      ),
      part(
        sketch("s", "front", [line("l", [6, 0], [6, 15])]),
        revolve("r", "s", { thin: { thickness: 4, side: "outside" } }),
      ),
      part(
        sketch("s", "front", rect(0, 0, 10, 15)),
        revolve("b", "s"),
        sketch("t", "top", circ(0, 0, 6)),
        cut("c", "t", "through"),
      ),
    ],
  },
  {
    name: "frustum of a cone",
    volume: (PI * 10 * (64 + 8 * 3 + 9)) / 3,
    area: PI * (64 + 9) + PI * 11 * sqrt(125),
    centre: [0, 0, (10 * (64 + 2 * 24 + 27)) / (4 * (64 + 24 + 9))],
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [8, 0],
            [3, 10],
            [0, 10],
          ]),
        ),
        revolve("r", "s"),
      ),
      part(sketch("s", "top", circ(0, 0, 8)), extrude("b", "s", 10, { draft: `=${(Math.atan(0.5) * 180) / PI}` })),
    ],
  },
  {
    name: "whole cone",
    volume: (PI * 36 * 14) / 3,
    area: PI * 36 + PI * 6 * sqrt(36 + 196),
    centre: [0, 0, 3.5],
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [6, 0],
            [0, 14],
          ]),
        ),
        revolve("r", "s"),
      ),
    ],
  },
  {
    name: "sphere",
    volume: (4 * PI * 343) / 3,
    area: 4 * PI * 49,
    centre: [0, 0, 0],
    ways: [
      part(sketch("s", "front", [arc("a", [0, 0], [0, -7], [0, 7]), line("l", [0, 7], [0, -7])]), revolve("r", "s")),
    ],
  },
  {
    name: "half ball",
    volume: (2 * PI * 343) / 3,
    area: 3 * PI * 49,
    centre: [0, 0, (3 * 7) / 8],
    ways: [
      part(
        sketch("s", "front", [arc("a", [0, 0], [7, 0], [0, 7]), line("l", [0, 7], [0, 0]), line("m", [0, 0], [7, 0])]),
        revolve("r", "s"),
      ),
    ],
  },
  {
    name: "torus",
    volume: 2 * PI * PI * 20 * 9,
    area: 4 * PI * PI * 20 * 3,
    centre: [0, 0, 0],
    ways: [
      part(sketch("s", "front", circ(20, 0, 3)), revolve("r", "s")),
      part(
        sketch("s", "front", circ(20, 0, 3)),
        revolve("r", "s", { turn: { kind: "both", angle: 180 } }),
        mirror("m", { datum: "right" }),
      ),
    ],
  },
  {
    name: "quarter of a torus",
    volume: (PI * PI * 20 * 9) / 2,
    area: PI * PI * 20 * 3 + 2 * PI * 9,
    ways: [part(sketch("s", "front", circ(20, 0, 3)), revolve("r", "s", { turn: { kind: "angle", angle: 90 } }))],
  },
  {
    name: "sector of a ring",
    volume: ((PI / 3) * (225 - 100) * 6) / 2,
    area: (PI / 3) * 125 + (PI / 3) * 25 * 6 + 2 * 5 * 6,
    ways: [
      part(sketch("s", "front", rect(10, 0, 15, 6)), revolve("r", "s", { turn: { kind: "angle", angle: 60 } })),
      part(sketch("s", "front", rect(10, 0, 15, 6)), revolve("r", "s", { turn: { kind: "both", angle: 60 } })),
      part(
        sketch("s", "front", rect(10, 0, 15, 6)),
        revolve("r", "s", { turn: { kind: "angle", angle: 60 }, reverse: true }),
      ),
    ],
  },
  {
    name: "wedge",
    volume: (12 * 9 * 20) / 2,
    area: 12 * 9 + (12 + 9 + 15) * 20,
    centre: [4, 10, 3],
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [12, 0],
            [0, 9],
          ]),
        ),
        extrude("e", "s", 20, { reverse: true }),
      ),
      part(
        ...box(12, 20, 9),
        sketch(
          "t",
          "front",
          poly([
            [12, 0],
            [13, 0],
            [13, 10],
            [-4 / 3, 10],
          ]),
        ),
        cut("c", "t", "through"),
      ),
    ],
  },
  {
    name: "hexagonal prism",
    volume: 1.5 * sqrt(3) * 400 * 8,
    area: 3 * sqrt(3) * 400 + 6 * 20 * 8,
    centre: [0, 0, 4],
    ways: [
      part(sketch("s", "top", poly(SIXTH)), extrude("b", "s", 8)),
      part(...disc(20, 8), sketch("t", "top", poly(SIXTH)), {
        id: "k",
        kind: "extrude",
        sketch: "t",
        operation: "keep",
        extent: { kind: "through" },
      }),
    ],
  },
  {
    name: "angle",
    volume: (40 * 5 + 25 * 5) * 30,
    area: 2 * (200 + 125) + (40 + 30 + 40 + 30) * 30,
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [40, 0],
            [40, 5],
            [5, 5],
            [5, 30],
            [0, 30],
          ]),
        ),
        extrude("e", "s", 30),
      ),
      part(...box(40, 30, 5), sketch("t", "top", rect(0, 0, 5, 30)), extrude("u", "t", 30)),
      part(...box(40, 30, 30), sketch("t", "front", rect(5, 5, 41, 31)), cut("c", "t", "through")),
    ],
  },
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
  {
    name: "one rounded edge",
    volume: 6000 - (1 - PI / 4) * 16 * 30,
    area: 2 * (200 - (1 - PI / 4) * 16) + 30 * (60 - 8 + 2 * PI),
    ways: [
      part(...box(10, 20, 30), fillet("f", 4, upright(1, 2))),
      part(
        sketch("s", "top", [
          line("l1", [0, 0], [6, 0]),
          arc("a", [6, 4], [6, 0], [10, 4]),
          line("l2", [10, 4], [10, 20]),
          line("l3", [10, 20], [0, 20]),
          line("l4", [0, 20], [0, 0]),
        ]),
        extrude("b", "s", 30),
      ),
    ],
  },
  {
    name: "four rounded edges",
    volume: 6000 - (4 - PI) * 9 * 30,
    area: 2 * (200 - (4 - PI) * 9) + 30 * (60 - 24 + 6 * PI),
    centre: [5, 10, 15],
    ways: [
      part(...box(10, 20, 30), fillet("f", 3, upright(1, 2), upright(2, 3), upright(3, 4), upright(4, 1))),
      part(...box(10, 20, 30), {
        id: "f",
        kind: "fillet",
        groups: [
          {
            radius: 3,
            edges: [
              { id: "a", on: upright(1, 2) },
              { id: "b", on: upright(2, 3) },
            ],
          },
          {
            radius: 3,
            edges: [
              { id: "c", on: upright(3, 4) },
              { id: "d", on: upright(4, 1) },
            ],
          },
        ],
      }),
    ],
  },
  {
    name: "two groups of roundings",
    volume: 6000 - (1 - PI / 4) * (9 + 4) * 30,
    ways: [
      part(...box(10, 20, 30), {
        id: "f",
        kind: "fillet",
        groups: [
          { radius: 3, edges: [{ id: "a", on: upright(1, 2) }] },
          { radius: 2, edges: [{ id: "b", on: upright(3, 4) }] },
        ],
      }),
    ],
  },
  {
    name: "rounded corner of a box",
    volume: 6000 - (1 - PI / 4) * 4 * (8 + 18 + 28) - (1 - PI / 6) * 8,
    ways: [part(...box(10, 20, 30), fillet("f", 2, upright(1, 2), rim("l1"), rim("l2")))],
  },
  {
    name: "rounded rim of a disc",
    volume: PI * 64 * 12 - 2 * PI * ((8 - 1) * 4 - PI * (8 - 2) - (4 * 2) / 3),
    area: PI * 64 + 2 * PI * 8 * 10 + PI * 36 + 2 * PI * (6 * 2 * (PI / 2) + 4),
    ways: [
      part(...disc(8, 12), fillet("f", 2, rim("c1"))),
      part(
        sketch("s", "front", [
          line("l1", [0, 0], [8, 0]),
          line("l2", [8, 0], [8, 10]),
          arc("a", [6, 10], [8, 10], [6, 12]),
          line("l3", [6, 12], [0, 12]),
          line("l4", [0, 12], [0, 0]),
        ]),
        revolve("r", "s"),
      ),
    ],
  },
  {
    name: "rounded inner corner",
    volume: (40 * 5 + 25 * 5 + (1 - PI / 4) * 9) * 30,
    ways: [
      part(
        sketch(
          "bs",
          "front",
          poly([
            [0, 0],
            [40, 0],
            [40, 5],
            [5, 5],
            [5, 30],
            [0, 30],
          ]),
        ),
        extrude("b", "bs", 30),
        fillet("f", 3, upright(3, 4)),
      ),
      part(
        sketch("s", "front", [
          line("l1", [0, 0], [40, 0]),
          line("l2", [40, 0], [40, 5]),
          line("l3", [40, 5], [8, 5]),
          arc("a", [8, 8], [5, 8], [8, 5]),
          line("l4", [5, 8], [5, 30]),
          line("l5", [5, 30], [0, 30]),
          line("l6", [0, 30], [0, 0]),
        ]),
        extrude("b", "s", 30),
      ),
    ],
  },
  {
    name: "chamfered edge",
    volume: 6000 - 4.5 * 30,
    area: 2 * (200 - 4.5) + 30 * (60 - 6 + 3 * SQRT2),
    ways: [
      part(...box(10, 20, 30), chamfer("c", 3, upright(1, 2))),
      part(
        sketch(
          "s",
          "top",
          poly([
            [0, 0],
            [7, 0],
            [10, 3],
            [10, 20],
            [0, 20],
          ]),
        ),
        extrude("b", "s", 30),
      ),
      part(...box(10, 20, 30), chamfer("c", { kind: "angle", distance: 3, angle: 45 }, upright(1, 2))),
    ],
  },
  {
    name: "chamfer of two distances",
    volume: 6000 - 5 * 30,
    ways: [
      part(...box(10, 20, 30), chamfer("c", { kind: "two", first: 2, second: 5 }, upright(1, 2))),
      part(
        sketch(
          "s",
          "top",
          poly([
            [0, 0],
            [8, 0],
            [10, 5],
            [10, 20],
            [0, 20],
          ]),
        ),
        extrude("b", "s", 30),
      ),
      part(...box(10, 20, 30), chamfer("c", { kind: "two", first: 5, second: 2, swap: true }, upright(1, 2))),
      part(
        ...box(10, 20, 30),
        chamfer("c", { kind: "angle", distance: 2, angle: (Math.atan(2.5) * 180) / PI }, upright(1, 2)),
      ),
    ],
  },
  {
    name: "chamfered shaft",
    volume: PI * 64 * 12 - (PI * 64 * 2 - (PI * 2 * (64 + 48 + 36)) / 3),
    area: PI * 64 + PI * 36 + 16 * PI * 10 + PI * 14 * 2 * SQRT2,
    ways: [
      part(...disc(8, 12), chamfer("c", 2, rim("c1"))),
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [8, 0],
            [8, 10],
            [6, 12],
            [0, 12],
          ]),
        ),
        revolve("r", "s"),
      ),
    ],
  },
  {
    name: "open box",
    volume: 6000 - 8 * 18 * 29,
    area: 2 * (30 * 30) + 200 + 2 * (8 * 29 + 18 * 29) + 8 * 18 + (200 - 144),
    centre: [5, 10, (6000 * 15 - 8 * 18 * 29 * 15.5) / (6000 - 8 * 18 * 29)],
    ways: [
      part(...box(10, 20, 30), shell("h", 1, ["b/end"])),
      part(
        ...box(10, 20, 30),
        sketch("t", { base: "top", offset: 30 }, rect(1, 1, 9, 19)),
        cut("c", "t", 29, { reverse: true }),
      ),
    ],
  },
  {
    name: "square tube",
    volume: 6000 - 8 * 18 * 30,
    ways: [
      part(...box(10, 20, 30), shell("h", 1, ["b/end", "b/start"])),
      part(sketch("s", "top", rect(0, 0, 10, 20)), extrude("b", "s", 30, { thin: { thickness: 1, side: "inside" } })),
      part(sketch("s", "top", rect(1, 1, 9, 19)), extrude("b", "s", 30, { thin: { thickness: 1, side: "outside" } })),
    ],
  },
  {
    name: "cup",
    volume: PI * (64 * 12 - 49 * 11),
    area: PI * (64 + 64 - 49 + 49) + 16 * PI * 12 + 14 * PI * 11,
    ways: [
      part(...disc(8, 12), shell("h", 1, ["b/end"])),
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [8, 0],
            [8, 12],
            [7, 12],
            [7, 1],
            [0, 1],
          ]),
        ),
        revolve("r", "s"),
      ),
      part(...disc(7, 11), shell("h", 1, ["b/end"], { outward: true })),
    ],
  },
  {
    name: "box walled outside",
    volume: 12 * 22 * 31 - 6000,
    ways: [part(...box(10, 20, 30), shell("h", 1, ["b/end"], { outward: true }))],
  },
  {
    name: "open box with a thick floor",
    volume: 6000 - 8 * 18 * 26,
    ways: [
      part(...box(10, 20, 30), shell("h", 1, ["b/end"], { others: [{ face: face("b/start"), thickness: 4 }] })),
      part(
        ...box(10, 20, 30),
        shell("h", 4, ["b/end"], { others: [1, 2, 3, 4].map((k) => ({ face: face(`b/side/l${k}`), thickness: 1 })) }),
      ),
    ],
  },
  {
    name: "rounded box hollowed out",
    volume: (200 - (4 - PI) * 9) * 30 - (144 - (4 - PI) * 4) * 29,
    ways: [
      part(
        ...box(10, 20, 30),
        fillet("f", 3, upright(1, 2), upright(2, 3), upright(3, 4), upright(4, 1)),
        shell("h", 1, ["b/end"]),
      ),
    ],
  },
  {
    name: "frustum of a pyramid",
    volume: (10 * (400 + 20 * 10 + 100)) / 3,
    area: 500 + 4 * 15 * sqrt(125),
    centre: [10, 10, (10 * (400 + 2 * 200 + 300)) / (4 * 700)],
    ways: [
      part(sketch("s", "top", rect(0, 0, 20, 20)), extrude("b", "s", 10, { draft: `=${(Math.atan(0.5) * 180) / PI}` })),
      part(
        sketch("s", { base: "top", offset: 10 }, rect(5, 5, 15, 15)),
        extrude("b", "s", 10, { reverse: true, draft: `=-${(Math.atan(0.5) * 180) / PI}` }),
      ),
    ],
  },
  {
    name: "two crossing rods: what they share",
    volume: (16 / 3) * 125,
    area: 16 * 25,
    centre: [0, 0, 0],
    ways: [
      part(
        sketch("s", "front", circ(0, 0, 5)),
        extrude("b", "s", 1, { extent: { kind: "both", depth: 30 } }),
        sketch("t", "right", circ(0, 0, 5)),
        { id: "k", kind: "extrude", sketch: "t", operation: "keep", extent: { kind: "both", depth: 30 } },
      ),
    ],
  },
  {
    name: "two bodies apart",
    volume: 1000 + 8000,
    area: 600 + 2400,
    bodies: 2,
    ways: [
      part(
        sketch("s", "top", rect(0, 0, 10, 10)),
        extrude("b", "s", 10),
        sketch("t", "top", rect(30, 0, 50, 20)),
        extrude("e", "t", 20, { operation: "separate" }),
      ),
      part(
        sketch("s", "top", rect(0, 0, 10, 10)),
        extrude("b", "s", 10),
        sketch("t", "top", rect(30, 0, 50, 20)),
        extrude("e", "t", 20),
      ),
    ],
  },
  {
    name: "cut in one of two bodies",
    volume: 1000 + 8000 - PI * 4 * 20,
    bodies: 2,
    ways: [
      part(
        sketch("s", "top", rect(0, 0, 10, 10)),
        extrude("b", "s", 10),
        sketch("t", "top", rect(30, 0, 50, 20)),
        extrude("e", "t", 20, { operation: "separate" }),
        sketch("u", "top", circ(5, 5, 2, "c1"), circ(40, 10, 2, "c2")),
        cut("c", "u", "through", { bodies: ["e"] }),
      ),
    ],
  },
  {
    name: "post as far as a face",
    volume: 1000 + PI * 4 * 15,
    ways: [
      part(
        sketch("s", { base: "top", offset: 15 }, rect(0, 0, 10, 10)),
        extrude("b", "s", 10),
        sketch("t", "top", circ(5, 5, 2)),
        extrude("e", "t", 1, { extent: { kind: "face", face: face("b/start") } }),
      ),
      part(
        sketch("s", { base: "top", offset: 15 }, rect(0, 0, 10, 10)),
        extrude("b", "s", 10),
        sketch("t", "top", circ(5, 5, 2)),
        extrude("e", "t", 1, { extent: { kind: "meet" } }),
      ),
      part(
        sketch("s", { base: "top", offset: 15 }, rect(0, 0, 10, 10)),
        extrude("b", "s", 10),
        sketch("t", "top", circ(5, 5, 2)),
        extrude("e", "t", 1, { extent: { kind: "face", face: face("b/end"), offset: -3 } }),
      ),
    ],
  },
  {
    name: "post up to a slope",
    volume: (20 * 20 * 10) / 2 + PI * 4 * 15,
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 20],
            [20, 10],
            [20, 20],
          ]),
        ),
        extrude("b", "s", 20, { reverse: true }),
        sketch("t", "top", circ(10, 10, 2)),
        extrude("e", "t", 1, { extent: { kind: "face", face: face("b/side/l1") } }),
      ),
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 20],
            [20, 10],
            [20, 20],
          ]),
        ),
        extrude("b", "s", 20, { reverse: true }),
        sketch("t", "top", circ(10, 10, 2)),
        extrude("e", "t", 1, { extent: { kind: "meet" } }),
      ),
    ],
  },
  {
    name: "post up to a ball",
    volume: (4 * PI * 1000) / 3 + PI * 4 * 20 - ((2 * PI) / 3) * (1000 - 96 ** 1.5),
    ways: [
      part(
        sketch("s", "front", [arc("a", [0, 20], [0, 10], [0, 30]), line("l", [0, 30], [0, 10])]),
        revolve("b", "s"),
        sketch("t", "top", circ(0, 0, 2)),
        extrude("e", "t", 1, { extent: { kind: "face", face: face("b/side/a") } }),
      ),
      part(
        sketch("s", "front", [arc("a", [0, 20], [0, 10], [0, 30]), line("l", [0, 30], [0, 10])]),
        revolve("b", "s"),
        sketch("t", "top", circ(0, 0, 2)),
        extrude("e", "t", 1, { extent: { kind: "face", face: face("b/side/a"), offset: 2 } }),
      ),
      part(
        sketch("s", "front", [arc("a", [0, 20], [0, 10], [0, 30]), line("l", [0, 30], [0, 10])]),
        revolve("b", "s"),
        sketch("t", "top", circ(0, 0, 2)),
        extrude("e", "t", 1, { extent: { kind: "meet" } }),
      ),
    ],
  },
  {
    name: "post down to a cone",
    volume: (PI * 100 * 20) / 3 + 126 * PI,
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 10],
            [10, 10],
            [0, 30],
          ]),
        ),
        revolve("b", "s"),
        sketch("t", { base: "top", offset: 40 }, circ(0, 0, 3)),
        extrude("e", "t", 1, { reverse: true, extent: { kind: "face", face: face("b/side/l2") } }),
      ),
    ],
  },
  {
    name: "collar up to a ring",
    volume: 2 * PI * PI * 20 * 25 + 40 * PI * (40 - (sqrt(24) + 25 * Math.asin(0.2))),
    ways: [
      part(
        sketch("s", "front", circ(20, 20, 5)),
        revolve("b", "s"),
        sketch("t", "top", circ(0, 0, 21, "c2"), circ(0, 0, 19)),
        extrude("e", "t", 1, { extent: { kind: "face", face: face("b/side/c1") } }),
      ),
    ],
  },
  {
    name: "slotted plate",
    volume: 60 * 20 * 4 - (30 * 8 + PI * 16) * 4,
    ways: [
      part(
        ...box(60, 20, 4),
        sketch("t", "top", [
          line("l1", [15, 6], [45, 6]),
          arc("a1", [45, 10], [45, 6], [45, 14]),
          line("l2", [45, 14], [15, 14]),
          arc("a2", [15, 10], [15, 14], [15, 6]),
        ]),
        cut("c", "t", "through"),
      ),
      part(
        ...box(60, 20, 4),
        hole("h", top, 8, [
          [15, 10],
          [45, 10],
        ]),
        sketch("t", "top", rect(15, 6, 45, 14)),
        cut("c", "t", "through"),
      ),
    ],
  },
  {
    name: "pulley",
    volume: PI * 900 * 12 - 2 * PI * ((30 - 8 / 3) * 0.5 * 8 * 8),
    ways: [
      part(
        sketch(
          "s",
          "front",
          poly([
            [0, 0],
            [30, 0],
            [30, 2],
            [22, 6],
            [30, 10],
            [30, 12],
            [0, 12],
          ]),
        ),
        revolve("r", "s"),
      ),
      part(
        ...disc(30, 12),
        sketch(
          "t",
          "front",
          poly([
            [30, 2],
            [31, 1.5],
            [31, 10.5],
            [30, 10],
            [22, 6],
          ]),
        ),
        revolve("c", "t", { operation: "cut" }),
      ),
    ],
  },
  {
    name: "row of posts",
    volume: 100 * 20 * 5 + 4 * PI * 4 * 10,
    ways: [
      part(...box(100, 20, 5), sketch("t", "top", circ(20, 10, 2)), extrude("e", "t", 15), row("p", ["e"], "x", 4, 20)),
      part(
        ...box(100, 20, 5),
        sketch("t", { base: "top", offset: 5 }, ...[20, 40, 60, 80].map((x, i) => circ(x, 10, 2, `c${i}`))),
        extrude("e", "t", 10),
      ),
    ],
  },
  {
    name: "posts with rounded rims, patterned together",
    volume: 100 * 20 * 5 + 3 * (PI * 9 * 10 - 2 * PI * ((3 - 0.5) * 1 - (PI / 4) * (3 - 1) - 1 / 3)),
    ways: [
      part(
        ...box(100, 20, 5),
        sketch("t", { base: "top", offset: 5 }, circ(20, 10, 3)),
        extrude("e", "t", 10),
        fillet("f", 1, edge("e/side/c1", "e/end")),
        row("p", ["e", "f"], "x", 3, 25),
      ),
    ],
  },
  {
    name: "boss on a datum plane",
    volume: 24000 + 4 * 4 * 5,
    ways: [
      part(
        ...box(40, 30, 20),
        { id: "q", kind: "plane", by: { kind: "offset", from: top, distance: 5 } },
        sketch("t", { datum: "q", frame: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0] } }, rect(10, 10, 14, 14)),
        extrude("e", "t", 5, { reverse: true }),
      ),
      part(
        ...box(40, 30, 20),
        sketch("t", { face: "b/end", frame: { origin: [0, 0, 20], x: [1, 0, 0], y: [0, 1, 0] } }, rect(10, 10, 14, 14)),
        extrude("e", "t", 5),
      ),
    ],
  },
];
