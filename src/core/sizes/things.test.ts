import { beforeAll, expect, it } from "vitest";
import type { Vec2 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { circ, cut, edge, extrude, fillet, hole, part, poly, rect, sketch } from "@/core/part/testing/build";
import { box, top, upright } from "@/core/part/testing/solids/known";
import { openNodeKernel } from "@/worker/kernel";
import { withSketchesDefined } from "./numbers";
import { measureSize, sizeText } from "./size";
import { disturbed, proposedSizes } from "./sizes";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

/** What a drawing of a part letters, of the kinds asked for. */
function lettered(document: PartDocument, ...kinds: string[]): string[] {
  const moved = disturbed(kernel, withSketchesDefined(document));
  if (!moved.ok) throw new Error(moved.refusal.sentence);
  const { body } = moved.value;
  return proposedSizes(moved.value)
    .filter((size) => kinds.includes(size.kind) && measureSize(size, body.on).length > 0)
    .map((size) => sizeText(size, body.on, { unit: "mm" }))
    .sort();
}

const crossed = part(
  ...box(60, 60, 60),
  sketch("s", { base: "top", offset: 60 }, circ(30, 30, 10)),
  cut("c", "s", "through", { reverse: true }),
  sketch("t", "front", circ(30, 30, 8)),
  cut("d", "t", "through", { extent: { kind: "both", depth: 200 } }),
);
const OUTLINE: Vec2[] = [
  [0, 0],
  [60, 0],
  [60, 40],
  [45, 40],
  [45, 12],
  [15, 12],
  [15, 40],
  [0, 40],
];
/** A fork: two cheeks with a gap between them. */
const fork = part(
  sketch("s", "front", poly(OUTLINE)),
  extrude("b", "s", 30),
  sketch("t", "right", circ(-15, 28, 5)),
  cut("c", "t", "through", { extent: { kind: "both", depth: 200 } }),
);
const rimmed = part(
  ...box(60, 40, 20),
  fillet(
    "f",
    4,
    edge("b/side/l1", "b/end"),
    edge("b/side/l2", "b/end"),
    edge("b/side/l3", "b/end"),
    edge("b/side/l4", "b/end"),
  ),
);
const cornered = part(...box(60, 40, 20), fillet("f", 8, upright(1, 2), upright(2, 3), upright(3, 4), upright(4, 1)));
/** A seat that a slot cuts in two. */
const seated = part(
  ...box(60, 40, 20),
  hole("h", top, 9, [[30, 20]], { head: { kind: "counterbore", diameter: 20, depth: 5 } }),
  sketch("k", { base: "top", offset: 20 }, rect(0, 17, 60, 23)),
  cut("s", "k", 8, { reverse: true }),
);

it("a bore that another crosses is one, in two pieces", () =>
  expect(lettered(crossed, "diameter")).toEqual(["⌀16", "⌀20"]));
it("the bores of a fork's cheeks are two as well", () => expect(lettered(fork, "diameter")).toEqual(["2× ⌀10"]));
it("a rounding that runs round a rim is one", () => expect(lettered(rimmed, "radius")).toEqual(["R4"]));
it("four corners are four", () => expect(lettered(cornered, "radius")).toEqual(["4× R8"]));
it("a seat that is cut in two is one", () =>
  expect(lettered(seated, "counterbore", "depth").filter((text) => /^\d+×/.test(text))).toEqual([]));
