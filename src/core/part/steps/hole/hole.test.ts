import { beforeAll, describe, expect, it } from "vitest";
import { measurePart } from "@/core/check/given/measured";
import type { Kernel } from "@/core/kernel/opencascade";
import { openNodeKernel } from "@/worker/kernel";
import { edge, extrude, face, hole, part, rect, sketch } from "../../testing/build";
import { holeKind, type HoleStep } from "./schema";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const block = [sketch("s", "top", rect(0, 0, 40, 30)), extrude("b", "s", 20)] as const;
const drill = (more: Partial<HoleStep>) => hole("h", face("b/end"), 6, [[10, 10]], more);
const trouble = (more: Partial<HoleStep>) =>
  measurePart(kernel, part(...block, drill(more))).built.steps.find((s) => s.id === "h")!.refusal?.sentence;

describe("what cannot be drilled says why", () => {
  it.each<[string, Partial<HoleStep>, RegExp]>([
    [
      "a thread deeper than its hole",
      { extent: { kind: "depth", depth: 10 }, thread: { name: "M6", depth: 12 } },
      /thread is deeper than the hole/,
    ],
    ["a thread of no depth", { thread: { name: "M6", depth: 0 } }, /depth of the thread must be greater than 0/],
    [
      "a counterbore deeper than its hole",
      { extent: { kind: "depth", depth: 5 }, head: { kind: "counterbore", diameter: 11, depth: 6 } },
      /counterbore is deeper/,
    ],
    ["a hole turned outwards", { reverse: true, extent: { kind: "depth", depth: 5 } }, /meets no material/],
    ["a hole through nothing", { reverse: true }, /meets no material/],
    ["no diameter", { diameter: 0 }, /must be greater than 0/],
    ["as far as a face that is not parallel", { extent: { kind: "face", face: { datum: "front" } } }, /parallel/],
    ["as far as a face behind it", { reverse: true, extent: { kind: "face", face: { datum: "top" } } }, /behind/],
  ])("%s", (_, more, sentence) => expect(trouble(more)).toMatch(sentence));
  it.each<[string, Partial<HoleStep>]>([
    ["a thread as deep as the hole", { extent: { kind: "depth", depth: 10 }, thread: { name: "M6", depth: 10 } }],
    ["a thread in a hole that goes through", { thread: { name: "M6", depth: 12 } }],
  ])("%s is drilled", (_, more) => expect(trouble(more)).toBeUndefined());
});

describe("a thread is a note", () => {
  it("takes nothing away and shows in the list of Steps", () => {
    const plain = measurePart(kernel, part(...block, drill({}))).properties!.volume,
      threaded = measurePart(kernel, part(...block, drill({ thread: { name: "M6", depth: "1/4 in" } }))).properties!
        .volume;
    expect(threaded).toBe(plain);
    expect(holeKind.read(drill({ thread: { name: "M6", depth: 8 } }) as HoleStep, "mm").detail).toBe(
      "⌀6 mm · through · M6, 8 mm deep",
    );
    expect(holeKind.read(drill({ thread: { name: "1/4 UNC" } }) as HoleStep, "mm").detail).toMatch(/1\/4 UNC$/);
  });
});

it("a hole that begins at a plane within the part takes nothing from behind it", () => {
  const from = hole("h", { face: "" }, 6, [[10, 10]], {
    on: { datum: "q" } as never,
    extent: { kind: "depth", depth: 5 },
  });
  const plane = { id: "q", kind: "plane", by: { kind: "offset", from: { datum: "top" }, distance: 10 } } as const;
  const { properties } = measurePart(kernel, part(...block, plane, from));
  expect(properties!.volume).toBeCloseTo(40 * 30 * 20 - Math.PI * 9 * 5, 6);
});

describe("a hole placed by distances from two edges or faces", () => {
  const plate = (w: number, d: number) => [sketch("s", "top", rect(0, 0, w, d)), extrude("b", "s", 10)] as const;
  const by = (from: readonly [object, object]) =>
    hole("h", face("b/end"), 6, [], { points: [{ id: "p1", from }] as never });
  const axisOf = (w: number, d: number, from: readonly [object, object]) => {
    const { faces, built } = measurePart(kernel, part(...plate(w, d), by(from)));
    expect(built.steps.filter((s) => s.refusal)).toEqual([]);
    const wall = faces.find((f) => f.key === "h/bore/p1")!.carrier;
    if (wall.kind !== "cylinder") throw new Error("no bore");
    return wall.at.slice(0, 2).map((v) => Number(v.toFixed(9)));
  };
  const rim = (a: string) => edge(a, "b/end");
  it.each<[string, object, object]>([
    ["two faces", face("b/side/l2"), face("b/side/l3")],
    ["two edges", rim("b/side/l2"), rim("b/side/l3")],
    ["a face and an edge", face("b/side/l2"), rim("b/side/l3")],
  ])("%s: it follows them", (_, a, b) => {
    const from = [
      { of: a, distance: 8 },
      { of: b, distance: "=2*2.5" },
    ] as const;
    expect(axisOf(60, 40, from)).toEqual([52, 35]);
    expect(axisOf(80, 30, from)).toEqual([72, 25]);
  });
  it.each<[string, object, object, RegExp]>([
    ["two that run the same way", face("b/side/l1"), face("b/side/l3"), /run the same way/],
    ["the face it starts from", face("b/end"), face("b/side/l3"), /flat faces that stand on/],
    ["an upright edge", edge("b/side/l1", "b/side/l2"), face("b/side/l3"), /straight edges along/],
    ["one that is gone", face("b/side/l9"), face("b/side/l3"), /no longer there/],
  ])("%s is refused with a sentence", (_, a, b, sentence) => {
    const step = by([
      { of: a, distance: 8 },
      { of: b, distance: 5 },
    ]);
    const { built } = measurePart(kernel, part(...plate(60, 40), step));
    expect(built.steps[2]!.refusal?.sentence).toMatch(sentence);
  });
});
