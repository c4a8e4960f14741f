import { circ, cut, extrude, face, fillet, part, poly, rect, revolve, shell, sketch } from "../build";
import { box, disc, upright, type KnownSolid } from "./known";

const { PI, sqrt } = Math;

/** Shells and what two bodies share. */
export const HOLLOW: readonly KnownSolid[] = [
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
];
