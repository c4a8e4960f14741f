import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import {
  arc,
  circ,
  cut,
  edge,
  extrude,
  face,
  hole,
  line,
  part,
  poly,
  rect,
  revolve,
  sketch,
} from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import { sizedBody } from "../body";
import type { Lettering } from "../lettering";
import { isSameSize, measureSize, sizeText, type Size } from "../size";
import { SIZE_KINDS } from "./kinds";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const bodyOf = (document: PartDocument) => {
  const built = rebuild(kernel, document);
  const troubled = built.steps.find((s) => s.refusal);
  if (troubled) throw new Error(troubled.refusal!.sentence);
  const body = sizedBody(kernel, built.body!);
  kernel.release(built.body!.shape);
  return body;
};
const MM: Lettering = { unit: "mm" };

const plate = part(sketch("s", "top", rect(0, 0, 60, 40)), extrude("b", "s", 10));
const drilled = part(
  sketch("s", "top", rect(0, 0, 60, 40)),
  extrude("b", "s", 20),
  hole("h", face("b/end"), 6, [[15, 20]], {
    head: { kind: "counterbore", diameter: 11, depth: 6.5 },
    extent: { kind: "depth", depth: 14 },
    tip: 118,
  }),
  hole("k", face("b/end"), 5, [[45, 20]], {
    head: { kind: "countersink", diameter: 10, angle: 90 },
    extent: { kind: "through" },
  }),
);
const bevelled = part(sketch("s", "top", rect(0, 0, 60, 40)), extrude("b", "s", 20), {
  id: "c",
  kind: "chamfer",
  groups: [{ edges: [{ id: "e", on: edge("b/side/l1", "b/end") }], size: { kind: "two", first: 3, second: 2 } }],
} as never);
const oval = part(
  sketch(
    "s",
    "top",
    [{ id: "e", kind: "ellipse", centre: [3, 4], major: [3, 26], minor: [-6, 4] }],
    circ(5, 15, 3, "o"),
  ),
  extrude("e", "s", 6),
);
const slotted = part(
  sketch("s", "top", rect(0, 0, 60, 40)),
  extrude("b", "s", 10),
  sketch("t", "top", [
    line("a", [20, 15], [40, 15]),
    arc("r", [40, 20], [40, 15], [40, 25]),
    line("c", [40, 25], [20, 25]),
    arc("l", [20, 20], [20, 25], [20, 15]),
  ]),
  cut("c", "t", "through"),
);
const wedge = part(
  sketch(
    "s",
    "front",
    poly([
      [0, 0],
      [30, 0],
      [0, 30 / Math.sqrt(3)],
    ]),
  ),
  extrude("w", "s", 10),
);
const cone = part(
  sketch(
    "s",
    "front",
    poly([
      [0, 0],
      [10, 0],
      [6, 12],
      [0, 12],
    ]),
  ),
  revolve("r", "s"),
);
const ring = part(
  sketch("s", "top", circ(0, 0, 30)),
  extrude("b", "s", 5),
  hole(
    "h",
    face("b/end"),
    4,
    [0, 1, 2, 3, 4].map((k) => [20 * Math.cos((k * 2 * Math.PI) / 5), 20 * Math.sin((k * 2 * Math.PI) / 5)] as const),
  ),
);
const bores = [1, 2, 3, 4, 5].map((k) => `h/bore/p${k}`);
const quarter = part(
  sketch("s", "top", [line("a", [0, 0], [8, 0]), arc("r", [0, 0], [8, 0], [0, 8]), line("c", [0, 8], [0, 0])]),
  extrude("q", "s", 3),
);

type Nameless = Size extends infer S ? (S extends Size ? Omit<S, "id"> : never) : never;
const CASES: readonly (readonly [string, PartDocument, Nameless, readonly number[], string])[] = [
  ["a distance of faces", plate, { kind: "distance", from: ["b/side/l1"], to: ["b/side/l3"] }, [40], "40"],
  [
    "a distance to an edge",
    bevelled,
    { kind: "distance", from: ["b/start"], to: ["c/bevel/e", "b/side/l1"] },
    [17],
    "17",
  ],
  ["a diameter", drilled, { kind: "diameter", of: [["h/bore/p1"]] }, [6], "⌀6"],
  ["a diameter of a round edge", cone, { kind: "diameter", of: [["r/side/l2", "r/side/l3"]] }, [12], "⌀12"],
  ["a radius", slotted, { kind: "radius", of: ["c/side/r", "c/side/l"] }, [5], "2× R5"],
  ["an angle", wedge, { kind: "angle", from: ["w/side/l1"], to: ["w/side/l2"] }, [Math.PI / 6], "30°"],
  ["a turn", ring, { kind: "turn", about: "b/side/c1", from: bores[0]!, to: bores[1]! }, [(2 * Math.PI) / 5], "72°"],
  ["a cone", cone, { kind: "cone", of: ["r/side/l2"] }, [2 * Math.atan(4 / 12)], "36.87°"],
  [
    "a chamfer",
    bevelled,
    { kind: "chamfer", of: [{ slant: "c/bevel/e", first: "b/end", second: "b/side/l1" }], by: "legs" },
    [2, 3],
    "2 × 3",
  ],
  [
    "a depth to the shoulder",
    drilled,
    { kind: "depth", of: [{ bore: "h/bore/p1", mouth: "b/end", end: ["h/bore/p1", "h/tip/p1"] }] },
    [14],
    "14 deep",
  ],
  [
    "a counterbore",
    drilled,
    { kind: "counterbore", of: [{ wall: "h/counterbore/p1", seat: "h/seat/p1", mouth: "b/end" }] },
    [11, 6.5],
    "counterbore ⌀11 6.5 deep",
  ],
  [
    "a countersink",
    drilled,
    { kind: "countersink", of: [{ cone: "k/countersink/p1", mouth: "b/end" }] },
    [10, Math.PI / 2],
    "countersink ⌀10 × 90°",
  ],
  ["a wall", plate, { kind: "wall", of: [["b/start", "b/end"]] }, [10], "wall 10"],
  ["a pitch circle", ring, { kind: "circle", of: bores, about: "b/side/c1" }, [40, 5], "5× on ⌀40"],
  ["a pitch", ring, { kind: "pitch", of: bores.slice(0, 2) }, [40 * Math.sin(Math.PI / 5), 2], "23.511"],
  ["a slot", slotted, { kind: "slot", of: [["c/side/r", "c/side/l"]], overall: true }, [10, 30], "slot 10 × 30"],
  ["an ellipse", oval, { kind: "ellipse", of: ["e/side/e"] }, [44, 18], "ellipse 44 × 18"],
  ["an axis of it", oval, { kind: "ellipse", of: ["e/side/e"], only: "short" }, [18], "short axis 18"],
  [
    "a distance along it",
    oval,
    { kind: "distance", from: ["e/side/e"], to: ["e/side/o"], along: "e/side/e" },
    [11],
    "11",
  ],
  [
    "a distance across it",
    oval,
    { kind: "distance", from: ["e/side/e"], to: ["e/side/o"], along: "e/side/e", aside: true },
    [2],
    "2",
  ],
  ["a count", ring, { kind: "count", of: bores }, [5], "5×"],
  ["a thread", ring, { kind: "thread", of: bores, name: "M5", depth: 8 }, [4], "5× M5 8 deep"],
  ["an arc", quarter, { kind: "arc", of: "q/side/r", ends: ["q/side/a", "q/side/c"] }, [4 * Math.PI], "arc 12.566"],
];

describe("every kind of size", () => {
  it("has a case", () => expect(new Set(CASES.map(([, , s]) => s.kind))).toEqual(new Set(Object.keys(SIZE_KINDS))));
  it.each(CASES)("%s: as the formula has it, and as it is lettered", (_, document, nameless, want, text) => {
    const body = bodyOf(document),
      size = { ...nameless, id: "s" } as Size;
    const [reading] = measureSize(size, body.on);
    expect(reading, JSON.stringify(body.surfaces.map((s) => s.keys))).toBeDefined();
    reading!.forEach((v, i) => expect(v.value).toBeCloseTo(want[i]!, 9));
    expect(sizeText(size, body.on, MM)).toBe(text);
  });
  it("signs, fractions and inches as they are lettered", () => {
    const body = bodyOf(drilled);
    const size: Size = {
      id: "s",
      kind: "counterbore",
      of: [{ wall: "h/counterbore/p1", seat: "h/seat/p1", mouth: "b/end" }],
    };
    expect(sizeText(size, body.on, { unit: "mm", signs: true })).toBe("⌴ ⌀11 ↧ 6.5");
    const gap: Size = { id: "d", kind: "distance", from: ["b/start"], to: ["b/end"] };
    expect(sizeText(gap, body.on, { unit: "in" })).toBe(".7874");
    const inch = bodyOf(part(sketch("s", "top", rect(0, 0, 41.275, 12.7)), extrude("b", "s", 5)));
    const long: Size = { id: "d", kind: "distance", from: ["b/side/l2"], to: ["b/side/l4"] };
    expect(sizeText(long, inch.on, { unit: "in", fractions: true })).toBe("1 5/8");
  });
  it("a face that is not there: not found", () => {
    const body = bodyOf(plate);
    expect(measureSize({ id: "s", kind: "diameter", of: [["h/bore/p1"]] }, body.on)).toEqual([undefined]);
  });
  it("the same size with its fields in another order is the same, and another is not", () => {
    const bore: Size = { id: "a", kind: "counterbore", of: [{ bore: "h/bore/p1", floor: "h/floor/p1" }] } as never;
    const again = { of: [{ floor: "h/floor/p1", bore: "h/bore/p1" }], kind: "counterbore", id: "b" } as never;
    expect(isSameSize(bore, again)).toBe(true);
    const other = { ...(again as object), of: [{ bore: "h/bore/p2", floor: "h/floor/p1" }] } as never;
    expect(isSameSize(bore, other)).toBe(false);
  });
});
