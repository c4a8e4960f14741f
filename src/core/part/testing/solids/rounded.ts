import { arc, chamfer, extrude, fillet, line, part, poly, revolve, sketch } from "../build";
import type { Step } from "../../steps/kinds";
import { box, disc, rim, upright, type KnownSolid } from "./known";

const { PI, SQRT2 } = Math;
/** A chamfer whose edges have their two sizes the other way round than their group. */
const turned = (step: Step): Step =>
  step.kind === "chamfer"
    ? { ...step, groups: step.groups.map((g) => ({ ...g, edges: g.edges.map((e) => ({ ...e, swap: true })) })) }
    : step;

/** Roundings and chamfers. */
export const ROUNDED: readonly KnownSolid[] = [
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
      part(...box(10, 20, 30), turned(chamfer("c", { kind: "two", first: 5, second: 2 }, upright(1, 2)))),
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
];
