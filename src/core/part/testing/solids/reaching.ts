import {
  arc,
  circ,
  cut,
  edge,
  extrude,
  face,
  fillet,
  hole,
  line,
  part,
  poly,
  rect,
  revolve,
  row,
  sketch,
} from "../build";
import { box, disc, top, type KnownSolid } from "./known";

const { PI, sqrt } = Math;

/** Several bodies, and ends that reach as far as something. */
export const REACHING: readonly KnownSolid[] = [
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

/** Turned bosses that touch the round end of an arm: with a seam on the wrong side the library spoils them. */
export const TOUCHING: readonly KnownSolid[] = (["front", "right"] as const).flatMap((plane): KnownSolid[] =>
  [1, -1].map((side) => ({
    name: `boss turned onto the round end of an arm it touches, from the ${plane}, side ${side}`,
    volume: (60 * 20 + PI * 100) * 8 + PI * 100 * 15,
    ways: [
      part(
        sketch("as", "top", [
          line("l1", [0, -10], [60, -10]),
          arc("a1", [60, 0], [60, -10], [60, 10]),
          line("l2", [60, 10], [0, 10]),
          arc("a2", [0, 0], [0, 10], [0, -10]),
        ]),
        extrude("a", "as", 8),
        sketch(
          "bs",
          plane,
          poly([
            [0, -3],
            [side * 10, -3],
            [side * 10, 20],
            [0, 20],
          ]),
        ),
        revolve("b", "bs"),
      ),
    ],
  })),
);
