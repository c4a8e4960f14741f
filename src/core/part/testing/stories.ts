import type { PartDocument } from "../document";
import {
  arc,
  chamfer,
  circ,
  cut,
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
} from "./build";

/**
 * Something is picked on the part before, the part is changed, and it is looked for again. `holds`: it is found, and
 * then its middle stands where told (mm). `lost`: it must be reported lost, not replaced by something else.
 */
export interface Story {
  readonly name: string;
  readonly before: PartDocument;
  readonly after: PartDocument;
  /** Keys of faces, edges (A|B) and vertices (A&B&C) on the part before. */
  readonly holds?: Readonly<Record<string, readonly [number, number, number] | true>>;
  readonly lost?: readonly string[];
}

type Steps = Parameters<typeof part>;
const block = (w = 60, d = 40, h = 20): Steps => [sketch("s", "top", rect(0, 0, w, d)), extrude("b", "s", h)];
const top = face("b/end");
const slot = (x0: number, x1: number): Steps => [sketch("t", "top", rect(x0, -5, x1, 100)), cut("c", "t", "through")];
const upright = (a: number, b: number) => edge(`b/side/l${a}`, `b/side/l${b}`);
const post = (r: number, h: number): Steps => [sketch("s", "top", circ(0, 0, r)), extrude("b", "s", h)];

const raised = (id: string, from: string, by: number) => extrude(id, "", by, { sketch: undefined, face: face(from) });
const walled = (id: string, from: string, ends?: Record<string, "first">) =>
  extrude(id, from, 10, { thin: { thickness: 2, side: "middle", ...(ends && { ends }) } });

export const STORIES: readonly Story[] = [
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
  {
    name: "a face is split by a cut through its middle",
    before: part(...block()),
    after: part(...block(), ...slot(25, 35)),
    holds: { "b/side/l2": [60, 20, 10], "b/side/l4": [0, 20, 10], "b/side/l1&b/side/l2&b/end": [60, 0, 20] },
    lost: ["b/end"],
  },
  {
    name: "a face is split near one end",
    before: part(...block()),
    after: part(...block(), ...slot(50, 56)),
    holds: { "b/side/l1": true, "b/side/l2": true },
  },
  {
    name: "of two halves of a split face each stays itself",
    before: part(...block(), ...slot(25, 35)),
    after: part(...block(70), ...slot(25, 35)),
    holds: { "b/end": [12.5, 20, 20], "b/end~2": [52.5, 20, 20], "c/side/l2|b/end~2": true, "c/side/l4|b/end": true },
  },
  {
    name: "the cut that split a face moves over",
    before: part(...block(), ...slot(25, 35)),
    after: part(...block(), ...slot(40, 50)),
    holds: { "b/end": [20, 20, 20], "b/end~2": [55, 20, 20] },
  },
  {
    name: "the cut that split a face is taken back",
    before: part(...block(), ...slot(25, 35)),
    after: part(...block()),
    holds: { "b/end": [30, 20, 20] },
    lost: ["c/side/l2", "c/side/l4|b/end"],
  },
  {
    name: "a slot no longer reaches through and the halves are one again",
    before: part(...block(), sketch("t", "top", rect(25, -5, 35, 100)), cut("c", "t", "through")),
    after: part(...block(), sketch("t", "top", rect(25, -5, 35, 30)), cut("c", "t", "through")),
    holds: { "b/end": true, "c/side/l2": true, "b/side/l3": [30, 40, 10] },
  },
  {
    name: "a step is put before another",
    before: part(...block(), fillet("f", 4, upright(1, 2)), hole("h", top, 8, [[20, 20]])),
    after: part(...block(), hole("h", top, 8, [[20, 20]]), fillet("f", 4, upright(1, 2))),
    holds: { "f/round/e1": true, "h/bore/p1|b/end": [20, 20, 20], "f/round/e1|b/end": true },
  },
  {
    name: "roundings are put before the shell",
    before: part(...block(), shell("k", 2, ["b/end"]), fillet("f", 4, upright(1, 2))),
    after: part(...block(), fillet("f", 4, upright(1, 2)), shell("k", 2, ["b/end"])),
    holds: { "f/round/e1": true, "k/inner/b/start": true, "k/inner/b/side/l1": true },
  },
  {
    name: "the shell gets thicker",
    before: part(...block(), shell("k", 2, ["b/end"])),
    after: part(...block(), shell("k", 5, ["b/end"])),
    holds: {
      "k/inner/b/start": [30, 20, 5],
      "k/inner/b/side/l1": [30, 5, 12.5],
      "k/inner/b/side/l1|k/inner/b/side/l2": [55, 5, 12.5],
    },
  },
  {
    name: "another face is opened in the shell",
    before: part(...block(), shell("k", 2, ["b/end"])),
    after: part(...block(), shell("k", 2, ["b/end", "b/side/l2"])),
    holds: { "k/inner/b/start": true },
    lost: ["k/inner/b/side/l2"],
  },
  {
    name: "an edge is added to a fillet",
    before: part(...block(), fillet("f", 4, upright(1, 2))),
    after: part(...block(), fillet("f", 4, upright(1, 2), upright(3, 4))),
    holds: { "f/round/e1": true, "f/round/e1|b/end": true, "f/round/e1|b/side/l1": [56, 0, 10] },
  },
  {
    name: "a fillet's edge is taken out",
    before: part(...block(), fillet("f", 4, upright(1, 2), upright(3, 4))),
    after: part(...block(), {
      id: "f",
      kind: "fillet",
      groups: [{ radius: 4, edges: [{ id: "e2", on: upright(3, 4) }] }],
    }),
    holds: { "f/round/e2": true, "b/side/l3": true },
    lost: ["f/round/e1", "f/round/e1|b/end"],
  },
  {
    name: "a fillet becomes a chamfer",
    before: part(...block(), fillet("f", 4, upright(1, 2))),
    after: part(...block(), chamfer("f", 4, upright(1, 2))),
    holds: { "b/side/l1": [28, 0, 10] },
    lost: ["f/round/e1"],
  },
  {
    name: "the radius changes",
    before: part(...block(), fillet("f", 4, upright(1, 2))),
    after: part(...block(), fillet("f", 9, upright(1, 2))),
    holds: { "f/round/e1": true, "f/round/e1|b/side/l1": [51, 0, 10] },
  },
  {
    name: "a rounding eats the edge it was measured from",
    before: part(...block()),
    after: part(...block(), fillet("f", 4, edge("b/side/l1", "b/end"))),
    holds: { "b/end": true, "b/side/l1": [30, 0, 8] },
    lost: ["b/side/l1|b/end"],
  },
  {
    name: "a boss grows out of the face",
    before: part(...block()),
    after: part(...block(), sketch("t", { base: "top", offset: 20 }, circ(15, 20, 6)), extrude("e", "t", 10)),
    holds: { "b/end": true, "b/side/l1|b/end": [30, 0, 20] },
  },
  {
    name: "a second block is set flush beside the first",
    before: part(...block()),
    after: part(...block(), sketch("t", "top", rect(60, 0, 90, 40)), extrude("e", "t", 20)),
    holds: { "b/end": [45, 20, 20], "b/side/l1": [45, 0, 10], "b/side/l4": [0, 20, 10] },
    lost: ["b/side/l2"],
  },
  {
    name: "flush blocks: the older name stays when the newer goes",
    before: part(...block(), sketch("t", "top", rect(60, 0, 90, 40)), extrude("e", "t", 20)),
    after: part(...block()),
    holds: { "b/end": [30, 20, 20] },
    lost: ["e/side/l2"],
  },
  {
    name: "a mirrored half widens",
    before: part(...block(30), mirror("m", face("b/side/l2"))),
    after: part(...block(40), mirror("m", face("b/side/l2"))),
    holds: { "m/image/b/side/l4": [80, 20, 10], "b/side/l4": [0, 20, 10], "b/side/l4|b/end": [0, 20, 20] },
  },
  {
    name: "the mirror is suppressed",
    before: part(...block(30), mirror("m", face("b/side/l2"))),
    after: part(...block(30), { ...mirror("m", face("b/side/l2")), suppressed: true }),
    holds: { "b/side/l4": [0, 20, 10] },
    lost: ["m/image/b/side/l4"],
  },
  {
    name: "a hole is made before it is mirrored with its block",
    before: part(...block(30), hole("h", top, 6, [[10, 20]]), mirror("m", face("b/side/l2"))),
    after: part(...block(30), hole("h", top, 6, [[15, 20]]), mirror("m", face("b/side/l2"))),
    holds: { "m/image/h/bore/p1": true, "m/image/h/bore/p1|b/end": [45, 20, 20], "h/bore/p1|b/end": [15, 20, 20] },
  },
  {
    name: "a turned groove moves along the shaft",
    before: part(
      sketch("s", "front", rect(0, 0, 10, 50)),
      revolve("b", "s"),
      sketch("t", "front", rect(8, 20, 11, 25, "g")),
      revolve("c", "t", { operation: "cut" }),
    ),
    after: part(
      sketch("s", "front", rect(0, 0, 10, 50)),
      revolve("b", "s"),
      sketch("t", "front", rect(8, 35, 11, 40, "g")),
      revolve("c", "t", { operation: "cut" }),
    ),
    holds: {
      "c/side/g4": true,
      "c/side/g1": [0, 0, 35],
      "c/side/g3|b/side/l2~2": [0, 0, 40],
      "b/side/l3": [0, 0, 50],
      "b/side/l2": [0, 0, 17.5],
      "b/side/l2~2": [0, 0, 45],
    },
  },
  {
    name: "a turned part becomes three quarters of one",
    before: part(sketch("s", "front", rect(2, 0, 10, 50)), revolve("b", "s")),
    after: part(sketch("s", "front", rect(2, 0, 10, 50)), revolve("b", "s", { turn: { kind: "angle", angle: 270 } })),
    holds: { "b/side/l1": true, "b/side/l2": true, "b/side/l1|b/side/l2": true },
  },
  {
    name: "a sketch's face moves up and its boss goes with it",
    before: part(
      ...block(),
      sketch("t", { face: "b/end", frame: { origin: [0, 0, 20], x: [1, 0, 0], y: [0, 1, 0] } }, circ(30, 20, 5)),
      extrude("e", "t", 10),
    ),
    after: part(
      ...block(60, 40, 50),
      sketch("t", { face: "b/end", frame: { origin: [0, 0, 20], x: [1, 0, 0], y: [0, 1, 0] } }, circ(30, 20, 5)),
      extrude("e", "t", 10),
    ),
    holds: { "e/end": [30, 20, 60], "e/side/c1|e/end": [30, 20, 60], "e/side/c1|b/end": [30, 20, 50] },
  },
  {
    name: "the sides lean",
    before: part(...block()),
    after: part(sketch("s", "top", rect(0, 0, 60, 40)), extrude("b", "s", 20, { draft: 5 })),
    holds: { "b/side/l1": true, "b/side/l1|b/side/l2": true, "b/end": [30, 20, 20] },
  },
  {
    name: "the extrude turns round",
    before: part(...block()),
    after: part(sketch("s", "top", rect(0, 0, 60, 40)), extrude("b", "s", 20, { reverse: true })),
    holds: { "b/side/l1": [30, 0, -10], "b/side/l1|b/side/l2": [60, 0, -10] },
  },
  {
    name: "a symmetric split has no side that is clearly meant",
    before: part(...block()),
    after: part(...block(), sketch("t", "top", rect(28, -5, 32, 100)), cut("c", "t", "through")),
    lost: ["b/end", "b/side/l1", "b/side/l1|b/end"],
  },
  {
    name: "a rib across cuts a bore's rim in two",
    before: part(...block(), hole("h", top, 10, [[30, 20]])),
    after: part(
      ...block(),
      hole("h", top, 10, [[30, 20]]),
      sketch("t", "top", rect(28, -5, 32, 100)),
      extrude("r", "t", 20),
    ),
    holds: { "b/side/l2": [60, 20, 10] },
    lost: ["h/bore/p1"],
  },
  {
    name: "the block under a raised face widens",
    before: part(...block(), raised("f", "b/end", 5)),
    after: part(...block(80, 50), raised("f", "b/end", 5)),
    holds: { "f/end": [40, 25, 25], "b/side/l1": [40, 0, 12.5], "b/side/l1|f/end": [40, 0, 25] },
  },
  {
    name: "a raised face is raised again by a step between",
    before: part(...block(), raised("f", "b/end", 5)),
    after: part(...block(), raised("f", "b/end", 5), raised("g", "f/end", 3)),
    holds: { "b/side/l2": [60, 20, 14] },
    lost: ["f/end", "b/side/l1|f/end"],
  },
  {
    name: "a wall's outline gains a corner",
    before: part(sketch("s", "top", [line("l1", [0, 0], [30, 0]), line("l2", [30, 0], [30, 20])]), walled("b", "s")),
    after: part(
      sketch("s", "top", [line("l1", [0, 0], [30, 0]), line("l2", [30, 0], [30, 20]), line("l3", [30, 20], [10, 20])]),
      walled("b", "s"),
    ),
    holds: {
      "b/side/l1.right": [15.5, -1, 5],
      "b/side/l1.start": [0, 0, 5],
      "b/side/l1.left|b/side/l2.left": [29, 1, 5],
    },
    lost: ["b/side/l2.end"],
  },
  {
    name: "the block that a wall runs on to moves away",
    before: part(
      sketch("s", "top", rect(40, -10, 60, 10)),
      extrude("b", "s", 10),
      sketch("t", "top", [line("l1", [0, 0], [30, 0])]),
      walled("w", "t", { "l1.end": "first" }),
    ),
    after: part(
      sketch("s", "top", rect(50, -10, 70, 10)),
      extrude("b", "s", 10),
      sketch("t", "top", [line("l1", [0, 0], [30, 0])]),
      walled("w", "t", { "l1.end": "first" }),
    ),
    holds: { "w/side/l1.left": [25, 1, 5], "w/side/l1.start": [0, 0, 5], "b/side/l4|w/side/l1.right": [50, -1, 5] },
  },
];
