import { arc, circ, cut, extrude, hole, line, mirror, part, poly, rect, revolve, sketch } from "../build";
import { box, disc, top, SIXTH, type KnownSolid } from "./known";

const { PI, sqrt } = Math;

/** Bodies of elementary geometry, each in several ways. */
export const PLAIN: readonly KnownSolid[] = [
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
];
