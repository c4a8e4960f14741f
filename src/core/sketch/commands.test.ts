import { describe, expect, it } from "vitest";
import { applyToSketch } from "./commands";
import { type SketchCommand } from "./command-schema";
import { relationText } from "./sentences";
import { circle, polyline, rectangle } from "./shapes";
import { emptySketch, pointAt, type Sketch } from "./sketch";
import { solveSketch } from "./solve";

const run = (s: Sketch, ...commands: SketchCommand[]): Sketch =>
  commands.reduce((at, c) => {
    const r = applyToSketch(at, c, "mm");
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value;
  }, s);
const box = () => {
  const s = emptySketch("top");
  return run(s, rectangle(s, [0, 0], [40, 20]), { do: "constrain", kind: "coincident", of: ["l1.start", "origin"] });
};
const freedoms = (s: Sketch) => {
  const r = solveSketch(s, "mm");
  return r.ok ? r.value.freedoms : -1;
};

describe("commands on a sketch", () => {
  it("the first size scales the whole rough sketch, with a notice", () => {
    const r = applyToSketch(box(), { do: "dimension", kind: "length", of: ["l1"], value: 400, at: [20, -8] }, "mm");
    expect(r.ok && r.notice).toMatch(/scaled by 10/);
    // its number keeps its place beside the line
    expect(r.ok && r.value.dimensions[0]!.at).toEqual([200, -80]);
    expect(r.ok && pointAt(r.value, "l2.end")).toEqual([400, 200]);
  });
  it("a size near the drawn one does not scale", () => {
    const r = applyToSketch(box(), { do: "dimension", kind: "length", of: ["l1"], value: 44 }, "mm");
    expect(r.ok && r.notice).toBeUndefined();
    expect(r.ok && pointAt(r.value, "l2.end")).toEqual([44, 20]);
  });
  it("a surplus dimension becomes a reference dimension and follows what it measures", () => {
    const s = run(
      box(),
      { do: "dimension", kind: "length", of: ["l1"], value: 40 },
      { do: "dimension", kind: "length", of: ["l2"], value: 20 },
    );
    const r = applyToSketch(s, { do: "dimension", kind: "length", of: ["l3"] }, "mm");
    if (!r.ok) throw new Error(r.refusal.sentence);
    expect(r.notice).toMatch(/reference dimension/);
    expect(r.value.dimensions[2]).toMatchObject({ reference: true, value: 40 });
    expect(run(r.value, { do: "resize", id: "m1", value: "=2*35" }).dimensions[2]).toMatchObject({
      reference: true,
      value: 70,
    });
    expect(applyToSketch(r.value, { do: "resize", id: "m3", value: 5 }, "mm").ok).toBe(false);
  });
  it("a contradiction is refused and names what disagrees; the sketch stays", () => {
    const s = run(box(), { do: "dimension", kind: "length", of: ["l1"], value: 40 });
    const r = applyToSketch(s, { do: "dimension", kind: "length", of: ["l3"], value: 41 }, "mm");
    expect(r.ok).toBe(false);
    if (!r.ok) {
      expect(r.refusal.code).toBe("conflict");
      expect(r.refusal.about).toContain("m1");
      expect(r.refusal.sentence).toContain(
        "the level line at the bottom is 40 mm long; the level line at the top is 41 mm long",
      );
    }
  });
  it("a constraint that agrees is taken with a notice and harms nothing", () => {
    const r = applyToSketch(box(), { do: "constrain", kind: "parallel", of: ["l1", "l3"] }, "mm");
    expect(r.ok && r.notice).toMatch(/so already/);
    expect(r.ok && freedoms(r.value)).toBe(2);
  });
  it.each<[string, SketchCommand, string]>([
    ["a lost reference", { do: "constrain", kind: "horizontal", of: ["l9"] }, "lost-reference"],
    ["a kind that does not fit", { do: "constrain", kind: "concentric", of: ["l1", "l2"] }, "wrong-reference"],
    ["a thing with itself", { do: "constrain", kind: "parallel", of: ["l1", "l1"] }, "wrong-reference"],
    ["a size that is no number", { do: "dimension", kind: "length", of: ["l1"], value: "long" }, "bad-number"],
    ["a negative size", { do: "dimension", kind: "length", of: ["l1"], value: "-4" }, "bad-number"],
    ["an unknown dimension", { do: "resize", id: "m9", value: 4 }, "not-found"],
  ])("refuses %s", (_, command, code) => {
    const r = applyToSketch(box(), command, "mm");
    expect(r.ok ? "taken" : r.refusal.code).toBe(code);
  });
  it("deleting a curve takes what hung on it, with a notice", () => {
    const s = run(box(), { do: "dimension", kind: "length", of: ["l1"], value: 40 });
    const r = applyToSketch(s, { do: "delete", ids: ["l1"] }, "mm");
    expect(r.ok && r.value.curves.map((c) => c.id)).toEqual(["l2", "l3", "l4"]);
    expect(r.ok && r.value.dimensions).toEqual([]);
    expect(r.ok && r.notice).toMatch(/went with/);
  });
  it("a closed outline in one go, and circles made equal", () => {
    const s = emptySketch("front");
    let t = run(
      s,
      polyline(
        s,
        [
          [0, 0],
          [30, 0],
          [30, 10],
          [0, 25],
        ],
        true,
      ),
    );
    t = run(t, circle(t, [8, 8], 3));
    t = run(t, circle(t, [20, 6], 2));
    t = run(t, { do: "constrain", kind: "equal", of: ["c1", "c2"] });
    const [a, b] = t.curves.slice(4) as { radius: number }[];
    expect(a!.radius).toBe(b!.radius);
    expect(freedoms(t)).toBe(8 + 5);
  });
  it("construction and back", () => {
    const on = run(box(), { do: "construction", ids: ["l1"], on: true });
    expect(on.curves[0]!.construction).toBe(true);
    expect(run(on, { do: "construction", ids: ["l1"], on: false })).toEqual(box());
  });
  it("relations read as a person would say them", () =>
    expect(relationText({ id: "k", kind: "midpoint", of: ["c1.centre", "l1"] }, "mm")).toBe(
      "the centre of c1 is the midpoint of l1",
    ));
});
