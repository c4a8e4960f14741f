import { arc, cut, extrude, face, line, mirror, part, poly, rect, revolve, sketch, withParameters } from "../build";
import { box, disc, top, type KnownSolid } from "./known";

const { PI, tan, sqrt } = Math;

/** Extruded bodies and walls. */
export const EXTRUDED: readonly KnownSolid[] = [
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
];
