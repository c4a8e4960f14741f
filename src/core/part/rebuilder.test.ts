import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { roughVolume } from "@/core/kernel/properties";
import { openNodeKernel } from "@/worker/kernel";
import type { PartDocument } from "./document";
import { Rebuilder } from "./rebuild";
import { chamfer, circ, cut, edge, extrude, face, fillet, hole, part, rect, row, shell, sketch } from "./testing/build";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const plate = (depth: number, radius = 3): PartDocument =>
  part(
    sketch("s", "top", rect(0, 0, 60, 40)),
    extrude("b", "s", depth),
    fillet("f", radius, edge("b/side/l1", "b/side/l2")),
    hole("h", face("b/end"), 8, [[20, 20]]),
  );
const volume = (p: { body: { shape: never } | undefined } | ReturnType<Rebuilder["run"]>) =>
  roughVolume(kernel, p.body!.shape);

describe("a rebuild goes on from the first step that changed", () => {
  it("does nothing for the same document, and only the last step for a change of it", () => {
    const r = new Rebuilder(kernel);
    expect([...r.going(plate(10))]).toEqual([0, 1, 2, 3]);
    expect([...r.going(plate(10))]).toEqual([]);
    const other = {
      ...plate(10),
      steps: plate(10).steps.map((s) => (s.id === "h" ? { ...s, diameter: 9 } : s)),
    } as PartDocument;
    expect([...r.going(other)]).toEqual([3]);
    expect([...r.going(plate(12))]).toEqual([1, 2, 3]);
    expect([...r.going({ ...plate(12), units: "in" })]).toEqual([0, 1, 2, 3]);
    r.close();
  });
  it("does nothing for names, notes, places of numbers and where things were found last", () => {
    const sized = (at: [number, number], name: string): PartDocument => {
      const d = plate(10);
      const [first, ...rest] = d.steps;
      if (first?.kind !== "sketch") throw new Error("a sketch comes first");
      const dimension = { id: "m1", kind: "length" as const, of: ["l1"], value: 60, at };
      const sketched = { ...first, name, sketch: { ...first.sketch, dimensions: [dimension] } };
      const noted = rest.map((s) =>
        s.kind === "hole" ? { ...s, thread: { name }, from: { table: name, row: "1" } } : s,
      );
      return { ...d, name, colours: { body: "#b4522b" }, steps: [sketched, ...noted] };
    };
    const r = new Rebuilder(kernel);
    expect([...r.going(sized([1, 2], "a"))]).toEqual([0, 1, 2, 3]);
    expect([...r.going(sized([3, 4], "b"))]).toEqual([]);
    const face = (x: number) =>
      part(
        sketch("s", "top", rect(0, 0, 60, 40)),
        extrude("b", "s", 10),
        sketch("t", { face: "b/end", frame: { origin: [x, 0, 10], x: [1, 0, 0], y: [0, 1, 0] } }, circ(9, 9, 2)),
      );
    expect([...r.going(face(0))]).toHaveLength(3);
    expect([...r.going(face(5))]).toEqual([]);
    r.close();
  });
  it("builds the same as from nothing, whichever way it came there", () => {
    const r = new Rebuilder(kernel),
      afresh = (d: PartDocument) => {
        const one = new Rebuilder(kernel),
          v = volume(one.run(d));
        one.close();
        return v;
      };
    for (const d of [plate(10), plate(12), plate(12, 6), plate(10, 6), part(...plate(10).steps.slice(0, 2)), plate(10)])
      expect(volume(r.run(d))).toBeCloseTo(afresh(d), 6);
    r.close();
  });
  it("left off in the middle, keeps what was built until then", () => {
    const r = new Rebuilder(kernel),
      going = r.going(plate(10));
    going.next();
    going.next();
    expect([...r.going(plate(10))]).toEqual([2, 3]);
    r.close();
  });
  it("shows the part as it stood after any number of steps", () => {
    const r = new Rebuilder(kernel);
    r.run(plate(10));
    expect(volume(r.after(2, plate(10)))).toBeCloseTo(24000, 6);
    expect(r.after(0, plate(10)).body).toBeUndefined();
    r.close();
  });
});

describe("steps in trouble", () => {
  const trouble = (d: PartDocument) => {
    const r = new Rebuilder(kernel),
      p = r.run(d),
      out = p.steps.map((s) => [s.refusal?.sentence, s.lost?.map((l) => l.path)] as const);
    expect(p.body).toBeDefined();
    r.close();
    return out[out.length - 1]!;
  };
  const base = [sketch("s", "top", rect(0, 0, 60, 40)), extrude("b", "s", 10)];
  it.each([
    [
      "a radius too large names the edge and the largest",
      part(...base, fillet("f", 55, edge("b/side/l1", "b/side/l2"))),
      /The edge between two sides of step 2 cannot take a radius of 55 mm.* about a radius of 39\.\d+ mm/,
    ],
    [
      "an edge that is nowhere",
      part(...base, fillet("f", 2, edge("b/side/l1", "b/side/l3"))),
      /is no longer there\. Pick it anew/,
    ],
    ["a wall too thick", part(...base, shell("k", 30, ["b/end"])), /wall of this thickness cannot be made/],
    ["a hole beside the part", part(...base, hole("h", face("b/end"), 8, [[200, 20]])), /meets no material/],
    [
      "a counterbore narrower than its hole",
      part(...base, hole("h", face("b/end"), 8, [[20, 20]], { head: { kind: "counterbore", diameter: 6, depth: 3 } })),
      /must be wider than the hole/,
    ],
    [
      "a sketch that crosses its axis",
      part(...base, sketch("t", "front", rect(-5, 0, 5, 10)), {
        id: "r",
        kind: "revolve",
        sketch: "t",
        operation: "add",
        about: { axis: "z" },
        turn: { kind: "whole" },
      }),
      /crosses its axis/,
    ],
    [
      "no axis to turn about",
      part(...base, sketch("t", "front", rect(5, 0, 15, 10)), {
        id: "r",
        kind: "revolve",
        sketch: "t",
        operation: "add",
        turn: { kind: "whole" },
      }),
      /Pick what to turn about/,
    ],
    [
      "a body that is not there",
      part(...base, sketch("t", "top", circ(30, 20, 4)), cut("c", "t", "through", { bodies: ["x"] })),
      /The body x/,
    ],
    [
      "a cut of everything",
      part(...base, sketch("t", "top", rect(-10, -10, 90, 90)), cut("c", "t", "through")),
      /take away the whole part/,
    ],
    [
      "a pattern of nothing that can be repeated",
      part(...base, row("p", ["s"], "x", 3, 10)),
      /makes nothing that could be repeated/,
    ],
    [
      "a chamfer at no angle",
      part(...base, chamfer("c", { kind: "angle", distance: 2, angle: 90 }, edge("b/side/l1", "b/side/l2"))),
      /between 1° and 89°/,
    ],
    [
      "a face behind the sketch",
      part(
        ...base,
        sketch("t", { base: "top", offset: 20 }, circ(30, 20, 4)),
        extrude("x", "t", 1, { extent: { kind: "face", face: face("b/end") } }),
      ),
      /lies behind the sketch/,
    ],
  ])("%s", (_, d, sentence) => expect(trouble(d)[0]).toMatch(sentence));
  it("one lost edge of several is marked, and the rest is rounded", () => {
    const d = part(...base, fillet("f", 2, edge("b/side/l1", "b/side/l2"), edge("b/side/l1", "b/side/l3")));
    expect(trouble(d)).toEqual([undefined, ["groups.0.edges.1.on"]]);
  });
});

it("a step that leaves an unsound shape is refused, and the rest is built without it", () => {
  const d = part(
    sketch("s", "top", rect(0, 0, 60, 40)),
    extrude("b", "s", 10),
    sketch("t", "top", rect(10, 10, 20, 20)),
    extrude("c", "t", 20),
    hole("h", face("b/end"), 8, [[40, 20]]),
  );
  // as the library would tell of all that carries what step c left
  const r = new Rebuilder(kernel, (solid) => !solid.names.some((list) => list.some((n) => n.step === "c")));
  const built = r.run(d);
  expect(built.steps.map((s) => s.refusal?.sentence)).toEqual([
    undefined,
    undefined,
    undefined,
    expect.stringMatching(/could not be computed soundly/),
    undefined,
  ]);
  expect(volume(built)).toBeCloseTo(24_000 - 160 * Math.PI, 3);
  expect([...r.going(d)]).toEqual([]);
  r.close();
});
