import { beforeAll, describe, expect, it } from "vitest";
import { add3, scale3, type Vec3 } from "@/core/geometry/vector";
import { modelOf, type Model } from "@/core/kernel/model";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import {
  chamfer,
  cut,
  edge,
  extrude,
  face,
  fillet,
  hole,
  line,
  part,
  rect,
  revolve,
  shell,
  sketch,
  withParameters,
} from "@/core/part/testing/build";
import type { Step } from "@/core/part/steps/kinds";
import { openNodeKernel } from "@/worker/kernel";
import { handlesOf } from "./handles";

const block = part(
  sketch("s", "top", rect(0, 0, 40, 30)),
  extrude("b", "s", 10),
  sketch("t", "front", rect(5, 0, 9, 8), [line("axis", [0, 0], [0, 9], "centre-line")]),
);
let under: Model;
beforeAll(async () => {
  const kernel = await openNodeKernel(),
    { body } = rebuild(kernel, block);
  under = modelOf(kernel, body!);
});
const round = (p: Vec3) => p.map((v) => Math.round(v * 1e6) / 1e6 + 0);
/** Where the arrows of a step point to, by name. */
const tips = (step: Step, d: PartDocument = block) =>
  Object.fromEntries(
    handlesOf(d, step, under).map((h) => [h.name, round(add3(h.foot, scale3(h.along, h.value * h.per)))]),
  );
const value = (step: Step, name: string, text: string) =>
  handlesOf(block, step, under)
    .find((h) => h.name === name)!
    .put(step, text);

describe("arrows stand where the number ends", () => {
  it.each<[string, Step, Record<string, number[]>]>([
    ["depth of an extrude, over the middle of its sketch", extrude("x", "s", 6), { Depth: [20, 15, 6] }],
    ["turned round", extrude("x", "s", 6, { reverse: true }), { Depth: [20, 15, -6] }],
    [
      "both ways: half the whole depth",
      extrude("x", "s", 1, { extent: { kind: "both", depth: 8 } }),
      { Depth: [20, 15, 4] },
    ],
    [
      "two depths: two arrows",
      extrude("x", "s", 1, { extent: { kind: "two", depth: 8, back: "1/4 in" } }),
      { Depth: [20, 15, 8], "The other way": [20, 15, -6.35] },
    ],
    ["a face that rises", extrude("x", "", 5, { sketch: undefined, face: face("b/end") }), { Depth: [20, 15, 15] }],
    ["through: none", cut("x", "s", "through"), {}],
    [
      "a radius, away from the edge",
      fillet("f", 3, edge("b/side/l1", "b/end")),
      { Radius: [20, -3 / Math.SQRT2, 10 + 3 / Math.SQRT2].map((v) => Math.round(v * 1e6) / 1e6) },
    ],
    [
      "a chamfer's first distance",
      chamfer("c", { kind: "two", first: 2, second: 1 }, edge("b/side/l1", "b/side/l4")),
      { Distance: [-Math.SQRT2, -Math.SQRT2, 5].map((v) => Math.round(v * 1e6) / 1e6) },
    ],
    ["a wall, inwards from the rim", shell("k", 2, ["b/end"]), {}],
    [
      "a hole to depth, into the material",
      hole("h", face("b/end"), 6, [[12, 9]], { extent: { kind: "depth", depth: 7 } }),
      { Depth: [12, 9, 3] },
    ],
    ["a hole through: none", hole("h", face("b/end"), 6, [[12, 9]]), {}],
  ])("%s", (what, step, want) => {
    if (what.startsWith("a wall")) {
      const [x, y, z] = tips(step)["Wall thickness"]!;
      expect(z).toBe(10);
      expect(Math.min(x!, y!, 40 - x!, 30 - y!)).toBeCloseTo(2, 6);
    } else expect(tips(step)).toEqual(want);
  });
  it("an angle: the tip runs round the axis", () => {
    // the sketch's middle lies 7 from the axis and 4 up; a quarter turn takes it from x to y or against it
    const turned = (reverse: boolean) =>
      tips(revolve("r", "t", { about: undefined, turn: { kind: "angle", angle: 90 }, ...(reverse && { reverse }) }))[
        "Angle"
      ]!;
    const [x, y] = turned(false);
    expect([x, Math.abs(y!)]).toEqual([expect.closeTo(0, 6), expect.closeTo(4.5, 6)]);
    expect(turned(true)[1]).toBeCloseTo(-y!, 6);
  });
  it("parameters are read, what cannot be read has no arrow", () => {
    expect(tips(extrude("x", "s", "=2*w"), withParameters(block, { name: "w", value: 7 }))).toEqual({
      Depth: [20, 15, 14],
    });
    expect(tips(extrude("x", "s", "=1/"))).toEqual({});
    expect(tips(extrude("x", "gone", 5))).toEqual({});
    expect(tips(fillet("f", 3, edge("b/side/l9", "b/end")))).toEqual({});
  });
});

describe("dragging puts the number where it belongs", () => {
  it.each<[string, Step, string, unknown]>([
    ["depth", extrude("x", "s", 6), "Depth", { extent: { kind: "depth", depth: "8" } }],
    [
      "the other way",
      extrude("x", "s", 1, { extent: { kind: "two", depth: 8, back: 3 } }),
      "The other way",
      { extent: { kind: "two", depth: 8, back: "8" } },
    ],
    ["radius", fillet("f", 3, edge("b/side/l1", "b/end")), "Radius", { groups: [{ radius: "8" }] }],
    [
      "distance",
      chamfer("c", 1, edge("b/side/l1", "b/end")),
      "Distance",
      { groups: [{ size: { kind: "equal", distance: "8" } }] },
    ],
    ["wall", shell("k", 2, ["b/end"]), "Wall thickness", { thickness: "8" }],
    [
      "angle",
      revolve("r", "t", { about: undefined, turn: { kind: "both", angle: 40 } }),
      "Angle",
      { turn: { kind: "both", angle: "8" } },
    ],
  ])("%s", (_, step, name, want) => expect(value(step, name, "8")).toMatchObject(want as object));
});
