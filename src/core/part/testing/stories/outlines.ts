import { arc, circ, cut, edge, extrude, face, fillet, hole, line, part, poly, rect, ring, row, sketch } from "../build";
import { block, top, post, type Story } from "./story";

/** A sketch, a pattern or a hole changes. */
export const OUTLINES: readonly Story[] = [
  {
    name: "the base depth doubles",
    before: part(...block()),
    after: part(...block(60, 40, 40)),
    holds: {
      "b/end": [30, 20, 40],
      "b/side/l1": [30, 0, 20],
      "b/side/l1|b/end": [30, 0, 40],
      "b/side/l1&b/side/l2&b/end": [60, 0, 40],
    },
  },
  {
    name: "the outline grows",
    before: part(...block()),
    after: part(...block(80, 50)),
    holds: { "b/side/l2": [80, 25, 10], "b/side/l2|b/side/l3": [80, 50, 10], "b/end": [40, 25, 20] },
  },
  {
    name: "the sketch gains a corner",
    before: part(...block()),
    after: part(
      sketch(
        "s",
        "top",
        poly([
          [0, 0],
          [60, 0],
          [60, 40],
          [0, 40],
        ]).slice(0, 2),
        [line("l5", [60, 40], [30, 50]), line("l3", [30, 50], [0, 40]), line("l4", [0, 40], [0, 0])],
      ),
      extrude("b", "s", 20),
    ),
    holds: {
      "b/side/l1": [30, 0, 10],
      "b/side/l3": [15, 45, 10],
      "b/side/l1|b/side/l2": [60, 0, 10],
      "b/side/l3|b/side/l4": [0, 40, 10],
    },
    lost: ["b/side/l2|b/side/l3"],
  },
  {
    name: "the sketch loses a side",
    before: part(...block()),
    after: part(
      sketch("s", "top", [line("l1", [0, 0], [60, 0]), line("l2", [60, 0], [0, 40]), line("l4", [0, 40], [0, 0])]),
      extrude("b", "s", 20),
    ),
    holds: { "b/side/l1": [30, 0, 10], "b/side/l1|b/side/l4": [0, 0, 10] },
    lost: ["b/side/l3", "b/side/l3|b/end", "b/side/l2|b/side/l3"],
  },
  {
    name: "a corner of the sketch is rounded",
    before: part(...block()),
    after: part(
      sketch("s", "top", [
        line("l1", [0, 0], [50, 0]),
        arc("a", [50, 10], [50, 0], [60, 10]),
        line("l2", [60, 10], [60, 40]),
        line("l3", [60, 40], [0, 40]),
        line("l4", [0, 40], [0, 0]),
      ]),
      extrude("b", "s", 20),
    ),
    holds: { "b/side/l1|b/end": [25, 0, 20], "b/side/l2|b/end": [60, 25, 20] },
    lost: ["b/side/l1|b/side/l2"],
  },
  {
    name: "a circle becomes a slot",
    before: part(
      ...block(),
      hole("h", top, 8, [[20, 20]]),
      sketch("u", "top", circ(40, 20, 5)),
      cut("c", "u", "through"),
    ),
    after: part(
      ...block(),
      hole("h", top, 8, [[20, 20]]),
      sketch("u", "top", [
        line("m1", [38, 15], [42, 15]),
        arc("a1", [42, 20], [42, 15], [42, 25]),
        line("m2", [42, 25], [38, 25]),
        arc("a2", [38, 20], [38, 25], [38, 15]),
      ]),
      cut("c", "u", "through"),
    ),
    holds: { "h/bore/p1": true, "h/bore/p1|b/end": [20, 20, 20] },
    lost: ["c/side/c1", "c/side/c1|b/end"],
  },
  {
    name: "a round post becomes square",
    before: part(...post(10, 20)),
    after: part(sketch("s", "top", rect(-10, -10, 10, 10)), extrude("b", "s", 20)),
    holds: { "b/end": [0, 0, 20] },
    lost: ["b/side/c1", "b/side/c1|b/end"],
  },
  {
    name: "a side becomes an arc of the same name",
    before: part(...block()),
    after: part(
      sketch("s", "top", [
        line("l1", [0, 0], [60, 0]),
        arc("l2", [60, 20], [60, 0], [60, 40]),
        line("l3", [60, 40], [0, 40]),
        line("l4", [0, 40], [0, 0]),
      ]),
      extrude("b", "s", 20),
    ),
    holds: { "b/side/l1": [30, 0, 10] },
    lost: ["b/side/l2", "b/side/l2|b/end"],
  },
  {
    name: "a pattern's count goes from 4 to 6",
    before: part(...block(200, 40, 5), hole("h", top, 8, [[20, 20]]), row("p", ["h"], "x", 4, 20)),
    after: part(...block(200, 40, 5), hole("h", top, 8, [[20, 20]]), row("p", ["h"], "x", 6, 20)),
    holds: { "p/copy/2/h/bore/p1": true, "p/copy/4/h/bore/p1|b/end": [80, 20, 5], "h/bore/p1|b/start": [20, 20, 0] },
  },
  {
    name: "a pattern's count goes from 6 to 4",
    before: part(...block(200, 40, 5), hole("h", top, 8, [[20, 20]]), row("p", ["h"], "x", 6, 20)),
    after: part(...block(200, 40, 5), hole("h", top, 8, [[20, 20]]), row("p", ["h"], "x", 4, 20)),
    holds: { "p/copy/4/h/bore/p1|b/end": [80, 20, 5] },
    lost: ["p/copy/5/h/bore/p1", "p/copy/6/h/bore/p1|b/end"],
  },
  {
    name: "a place of a ring is left empty",
    before: part(...post(30, 6), hole("h", top, 6, [[20, 0]]), ring("p", ["h"], 6)),
    after: part(...post(30, 6), hole("h", top, 6, [[20, 0]]), ring("p", ["h"], 6, { skip: ["4"] })),
    holds: { "p/copy/3/h/bore/p1": true, "p/copy/5/h/bore/p1": true },
    lost: ["p/copy/4/h/bore/p1"],
  },
  {
    name: "the ring's first hole moves outward",
    before: part(...post(30, 6), hole("h", top, 6, [[20, 0]]), ring("p", ["h"], 4)),
    after: part(...post(30, 6), hole("h", top, 6, [[24, 0]]), ring("p", ["h"], 4)),
    holds: { "p/copy/2/h/bore/p1|b/end": [0, 24, 6], "p/copy/3/h/bore/p1|b/end": [-24, 0, 6] },
  },
  {
    name: "a second point is put before the first hole's",
    before: part(...block(), hole("h", top, 8, [[20, 20]])),
    after: part(...block(), {
      ...hole("h", top, 8, [[40, 20]]),
      points: [
        { id: "p2", at: [40, 20] },
        { id: "p1", at: [20, 20] },
      ],
    } as never),
    holds: { "h/bore/p1|b/end": [20, 20, 20] },
  },
  {
    name: "a hole's point is taken out",
    before: part(
      ...block(),
      hole("h", top, 8, [
        [20, 20],
        [40, 20],
      ]),
    ),
    after: part(...block(), { ...hole("h", top, 8, []), points: [{ id: "p2", at: [40, 20] }] } as never),
    holds: { "h/bore/p2|b/end": [40, 20, 20] },
    lost: ["h/bore/p1", "h/bore/p1|b/start"],
  },
  {
    name: "a hole moves across a fillet",
    before: part(...block(), fillet("f", 5, edge("b/side/l2", "b/end")), hole("h", face("b/start"), 8, [[30, -20]])),
    after: part(...block(), fillet("f", 5, edge("b/side/l2", "b/end")), hole("h", face("b/start"), 8, [[54, -20]])),
    holds: { "h/bore/p1": true, "f/round/e1": true, "b/end": true, "b/side/l2": true },
  },
  {
    name: "a hole slides off the part",
    before: part(...block(), hole("h", top, 8, [[30, 20]]), hole("i", top, 6, [[10, 10]])),
    after: part(...block(), hole("h", top, 8, [[90, 20]]), hole("i", top, 6, [[10, 10]])),
    holds: { "b/end": true, "i/bore/p1": true },
    lost: ["h/bore/p1"],
  },
  {
    name: "a hole grows into a counterbored one",
    before: part(...block(), hole("h", top, 8, [[30, 20]])),
    after: part(...block(), hole("h", top, 8, [[30, 20]], { head: { kind: "counterbore", diameter: 14, depth: 5 } })),
    holds: { "h/bore/p1": true, "h/bore/p1|b/start": [30, 20, 0] },
    lost: ["h/bore/p1|b/end"],
  },
  {
    name: "a through hole gets a depth",
    before: part(...block(), hole("h", top, 8, [[30, 20]])),
    after: part(...block(), hole("h", top, 8, [[30, 20]], { extent: { kind: "depth", depth: 9 } })),
    holds: { "h/bore/p1|b/end": [30, 20, 20] },
    lost: ["h/bore/p1|b/start"],
  },
];
