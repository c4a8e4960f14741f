import { describe, expect, it } from "vitest";
import { apply, type PartCommand } from "./commands";
import { readPart, type PartDocument } from "./document";
import { numbersOf, withNumber } from "./numbers";
import { readParameters } from "./parameters";
import { strayThings } from "./strays";
import { circ, extrude, face, fillet, edge, hole, part, rect, sketch, withParameters } from "./testing/build";

const sized = (): PartDocument => {
  const d = part(
    sketch("s", "top", rect(0, 0, 40, 20)),
    extrude("b", "s", 10),
    hole("h", face("b/end"), 6, [[10, 10]]),
  );
  const s = d.steps[0]!;
  return {
    ...d,
    steps: [
      s.kind === "sketch"
        ? { ...s, sketch: { ...s.sketch, dimensions: [{ id: "m1", kind: "length", of: ["l1"], value: 40 }] } }
        : s,
      ...d.steps.slice(1),
    ],
  };
};
const done = (d: PartDocument, c: PartCommand): PartDocument => {
  const r = apply(d, c);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
const refused = (d: PartDocument, c: PartCommand): string => {
  const r = apply(d, c);
  return r.ok ? "taken" : r.refusal.sentence;
};
const sketchOf = (d: PartDocument) => d.steps.flatMap((s) => (s.kind === "sketch" ? [s.sketch] : []))[0]!;

describe("parameters", () => {
  it("name each other, in any order", () => {
    const r = readParameters(
      [
        { name: "a", value: "=2*b+1 mm" },
        { name: "b", value: "1/2 in" },
        { name: "t", value: 30, kind: "angle" },
      ],
      "mm",
    );
    expect(r.ok && [...r.value].map(([n, v]) => [n, Number(v.n.toFixed(9))])).toEqual([
      ["b", 12.7],
      ["a", 26.4],
      ["t", Number((Math.PI / 6).toFixed(9))],
    ]);
  });
  it.each([
    [
      [
        { name: "a", value: "=b" },
        { name: "b", value: "=a" },
      ],
      /goes round in a circle/,
    ],
    [
      [
        { name: "a", value: 1 },
        { name: "a", value: 2 },
      ],
      /Two parameters are called “a”/,
    ],
    [[{ name: "mm", value: 1 }], /cannot name a parameter/],
    [[{ name: "a", value: "=c+1" }], /Parameter a/],
    [[{ name: "a", value: "12 mm", kind: "angle" as const }], /Parameter a/],
  ])("%j are refused", (list, sentence) => {
    const r = readParameters(list, "mm");
    expect(r.ok ? "read" : r.refusal.sentence).toMatch(sentence);
  });
  it("reach the sketches, which then solve by themselves", () => {
    let d = done(sized(), { do: "parameters", parameters: [{ name: "w", value: 50 }] });
    expect(sketchOf(d).given).toEqual([{ name: "w", value: 50, kind: "length" }]);
    d = done(d, { do: "sketch", step: "s", command: { do: "resize", id: "m1", value: "=w+5" } });
    const l1 = sketchOf(d).curves[0]!;
    expect(l1.kind === "line" && Math.hypot(l1.end[0] - l1.start[0], l1.end[1] - l1.start[1])).toBeCloseTo(55, 9);
    // without parameters nothing is left of them
    expect(
      sketchOf(
        done(done(d, { do: "sketch", step: "s", command: { do: "resize", id: "m1", value: 40 } }), {
          do: "parameters",
          parameters: [],
        }),
      ).given,
    ).toBeUndefined();
  });
  it("that go round are refused and nothing changes", () =>
    expect(refused(sized(), { do: "parameters", parameters: [{ name: "a", value: "=a" }] })).toMatch(/circle/));
});

describe("commands on steps", () => {
  it("a step moves only where all it stands on comes before it", () => {
    const d = part(...sized().steps, fillet("f", 2, edge("b/side/l1", "b/side/l2")));
    expect(done(d, { do: "move-step", id: "f", to: 2 }).steps.map((s) => s.id)).toEqual(["s", "b", "f", "h"]);
    expect(refused(d, { do: "move-step", id: "f", to: 1 })).toMatch(/must come after it/);
    expect(refused(d, { do: "move-step", id: "s", to: 3 })).toMatch(/must come after it/);
    expect(refused(d, { do: "move-step", id: "x", to: 0 })).toMatch(/There is no step/);
  });
  it("a name comes and goes", () => {
    const named = done(sized(), { do: "name-step", id: "h", name: " Cable hole " });
    expect(named.steps[2]!.name).toBe("Cable hole");
    expect("name" in done(named, { do: "name-step", id: "h", name: "  " }).steps[2]!).toBe(false);
  });
  it("what stands on a step is named when that is to be deleted", () =>
    expect(refused(sized(), { do: "delete-step", id: "b" })).toMatch(/Hole stands on this step/));
  it("another unit changes no size", () => {
    const inches = done(withParameters(sized(), { name: "w", value: 12 }), { do: "units", units: "in" });
    expect(inches.units).toBe("in");
    expect(sketchOf(inches).dimensions[0]!.value).toBe("40 mm");
    expect(inches.steps[1]).toMatchObject({ extent: { depth: "10 mm" } });
    expect(inches.steps[2]).toMatchObject({ diameter: "6 mm", points: [{ at: [10, 10] }] });
    expect(inches.parameters).toEqual([{ name: "w", value: "12 mm" }]);
  });
  it("colours come and go and leave the material alone", () => {
    const d = done(sized(), { do: "colours", colours: { body: "#b4522b" } });
    expect(d.material).toEqual(sized().material);
    expect("colours" in done(d, { do: "colours", colours: undefined })).toBe(false);
  });
});

describe("all numbers in one place", () => {
  it("are those that can be typed, and can be changed there", () => {
    const d = sized();
    expect(numbersOf(d).map((g) => [g.step, g.numbers.map((n) => [n.path, n.value])])).toEqual([
      ["s", [["m1", 40]]],
      ["b", [["extent.depth", 10]]],
      ["h", [["diameter", 6]]],
    ]);
    expect(done(d, withNumber(d, "b", "extent.depth", "12")!).steps[1]).toMatchObject({ extent: { depth: "12" } });
    expect(done(d, withNumber(d, "s", "m1", "44")!).steps[0]).toMatchObject({
      sketch: { dimensions: [{ value: "44" }] },
    });
    expect(withNumber(d, "b", "extent.width", "1")).toBeUndefined();
    expect(withNumber(d, "nothing", "x", "1")).toBeUndefined();
  });
});

describe("stray things", () => {
  const texts = (d: PartDocument, lumps = 1, bodies = 1) => strayThings(d, lumps, bodies).map((s) => s.text);
  it("a part in order has none", () => expect(texts(sized())).toEqual([]));
  it("are sketches without use, ends in the open, pieces apart, steps left out", () => {
    const d = part(
      ...sized().steps,
      sketch("t", "top", circ(0, 0, 4)),
      sketch("u", "top"),
      sketch("v", "top", rect(0, 0, 5, 5).slice(0, 3)),
      extrude("x", "v", 3),
      { ...fillet("f", 1, edge("b/side/l1", "b/end")), suppressed: true },
    );
    expect(texts(d, 2)).toEqual([
      expect.stringMatching(/is used by no step/),
      expect.stringMatching(/is empty/),
      expect.stringMatching(/end.* in the open/),
      expect.stringMatching(/2 pieces/),
      expect.stringMatching(/^Step \d+ \(Fillet\) is suppressed/),
    ]);
    expect(texts(sized(), 2, 2)).toEqual([expect.stringMatching(/2 separate bodies/)]);
  });
});

it("parameters that name each other in a circle are told, even if no step uses them", () => {
  const d = part(sketch("s", "top", rect(0, 0, 10, 10)), extrude("b", "s", 5));
  const r = readPart({
    ...d,
    parameters: [
      { name: "a", value: "=b" },
      { name: "b", value: "=a+1" },
    ],
  });
  expect(!r.ok && r.refusal.sentence).toMatch(/^Parameter [ab]: .*goes round in a circle \(a → b → a\)/);
});
