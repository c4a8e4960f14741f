import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { segmentEnd, segmentLength, segmentStart } from "@/core/geometry/segment";
import { distance2 } from "@/core/geometry/vector";
import { arc, line, poly } from "../part/testing/build";
import type { Curve, Sketch } from "./sketch";
import { loopArea } from "./regions";
import { openChains, stripOn, wallsOf, type Wall } from "./wall";

const sketch = (...curves: Curve[]): Sketch => ({ plane: { base: "top" }, curves, constraints: [], dimensions: [] });
function walls(s: Sketch, left: number, right: number): Wall[] {
  const r = wallsOf(s, left, right);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
}
const refusal = (s: Sketch, left: number, right: number) => {
  const r = wallsOf(s, left, right);
  return r.ok ? undefined : r.refusal.sentence;
};
const isClosed = (w: Wall) =>
  w.region.outer.every(
    (s, i) => distance2(segmentEnd(s), segmentStart(w.region.outer[(i + 1) % w.region.outer.length]!)) < 1e-9,
  );

/** A line, a quarter turn and a line, all tangent. */
const bend = sketch(line("l1", [-20, 0], [0, 0]), arc("a1", [0, 10], [0, 0], [10, 10]), line("l2", [10, 10], [10, 25]));

describe("open chains", () => {
  it("closed outlines, whole circles and construction are none", () => {
    expect(
      openChains(
        sketch(
          ...poly([
            [0, 0],
            [5, 0],
            [5, 5],
          ]),
          { id: "c1", kind: "circle", centre: [20, 0], radius: 3 },
          line("k", [0, 9], [9, 9], "centre-line"),
        ),
      ),
    ).toEqual([]);
  });
  it("are followed from end to end whichever way their curves were drawn", () => {
    const [chain] = openChains(
      sketch(line("b", [10, 0], [5, 0]), line("a", [0, 0], [5, 0]), line("c", [10, 0], [10, 7])),
    );
    expect(chain!.map((k) => [k.curve, k.back])).toEqual([
      ["c", true],
      ["b", false],
      ["a", true],
    ]);
  });
  it("several stand side by side", () =>
    expect(walls(sketch(line("l1", [0, 0], [5, 0]), line("l2", [0, 9], [5, 9])), 1, 1)).toHaveLength(2));
});

describe("walls", () => {
  it.each<[string, Sketch, number, number, number]>([
    ["along a line, half each", sketch(line("l1", [0, 0], [30, 0])), 1, 1, 60],
    ["along a line, to its left", sketch(line("l1", [0, 0], [30, 0])), 2, 0, 60],
    [
      "round a square corner: the outer side goes on to the corner",
      sketch(line("l1", [0, 0], [30, 0]), line("l2", [30, 0], [30, 20])),
      0,
      2,
      30 * 2 + 20 * 2 + 4,
    ],
    [
      "round the inside of the corner",
      sketch(line("l1", [0, 0], [30, 0]), line("l2", [30, 0], [30, 20])),
      2,
      0,
      30 * 2 + 20 * 2 - 4,
    ],
    ["along a bend, half each: length times thickness", bend, 1.5, 1.5, 3 * (35 + 5 * Math.PI)],
    ["along a quarter circle outside", sketch(arc("a1", [0, 0], [10, 0], [0, 10])), 0, 2, (Math.PI / 4) * (144 - 100)],
    [
      "a line that runs into an arc at a corner",
      sketch(line("l1", [0, 0], [10, 0]), arc("a1", [10, 5], [10, 0], [15, 5])),
      1,
      1,
      20 + (Math.PI / 4) * (36 - 16),
    ],
  ])("%s", (_, s, left, right, area) => {
    const [w] = walls(s, left, right);
    expect(isClosed(w!)).toBe(true);
    expect(loopArea(w!.region.outer)).toBeCloseTo(area, 9);
  });
  it("name their sides after the curves and their ends after the ends", () => {
    const [w] = walls(bend, 1, 1);
    expect(w!.region.outer.map((s) => s.curve)).toEqual([
      "l1.right",
      "a1.right",
      "l2.right",
      "l2.end",
      "l2.left",
      "a1.left",
      "l1.left",
      "l1.start",
    ]);
    expect(w!.ends.map((e) => e.of)).toEqual(["l1.start", "l2.end"]);
    expect(w!.ends[0].out).toEqual([expect.closeTo(-1, 12), expect.closeTo(0, 12)]);
    expect(w!.ends[1].out).toEqual([expect.closeTo(0, 12), expect.closeTo(1, 12)]);
  });
  it("turn and grow with what they follow: a law", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        fc.double({ min: 0.05, max: 4, noNaN: true }),
        (turn, scale, t) => {
          const place = ([x, y]: [number, number]): [number, number] => [
            scale * (x * Math.cos(turn) - y * Math.sin(turn)),
            scale * (x * Math.sin(turn) + y * Math.cos(turn)),
          ];
          const moved = sketch(
            ...bend.curves.map((c): Curve =>
              c.kind === "line"
                ? { ...c, start: place(c.start), end: place(c.end) }
                : c.kind === "arc"
                  ? { ...c, centre: place(c.centre), start: place(c.start), end: place(c.end) }
                  : c,
            ),
          );
          const [w] = walls(moved, t * scale, t * scale),
            length = scale * (35 + 5 * Math.PI);
          expect(loopArea(w!.region.outer) / (2 * t * scale * length)).toBeCloseTo(1, 9);
          // both sides together are as long as twice the middle
          expect(w!.region.outer.reduce((s, e) => s + segmentLength(e), 0) / (2 * length + 4 * t * scale)).toBeCloseTo(
            1,
            9,
          );
        },
      ),
    );
  });
});

describe("what cannot be a wall says why", () => {
  it.each<[string, Sketch, number, RegExp]>([
    ["an arc smaller than the wall", sketch(arc("a1", [0, 0], [3, 0], [0, 3])), 4, /too thick for this arc/],
    [
      "a short step between two corners",
      sketch(line("l1", [0, 0], [20, 0]), line("l2", [20, 0], [20, 1]), line("l3", [20, 1], [0, 1])),
      3,
      /too thick|run into itself/,
    ],
    [
      "an ellipse",
      sketch({
        id: "e1",
        kind: "ellipse-arc",
        centre: [0, 0],
        major: [9, 0],
        minor: [0, 4],
        start: [9, 0],
        end: [0, 4],
      }),
      1,
      /lines and arcs/,
    ],
    [
      "an outline that comes back to itself",
      sketch(
        line("l1", [0, 0], [30, 0]),
        line("l2", [30, 0], [30, 10]),
        line("l3", [30, 10], [15, 10]),
        line("l4", [15, 10], [15, 1]),
      ),
      1.5,
      /run into itself/,
    ],
  ])("%s", (_, s, left, sentence) => expect(refusal(s, left, left)).toMatch(sentence));
});

describe("a strip on from an end", () => {
  it("is as wide as the wall and runs the right way round at both ends", () => {
    const [w] = walls(sketch(line("l1", [0, 0], [10, 0])), 1, 2);
    for (const [end, far] of [
      [w!.ends[0], -5],
      [w!.ends[1], 15],
    ] as const) {
      const strip = stripOn(end, { left: "l", right: "r" }, 5);
      expect(loopArea(strip.outer)).toBeCloseTo(15, 12);
      expect(strip.outer.map((s) => s.curve).sort()).toEqual(["far", "l", "near", "r"]);
      const edge = strip.outer.find((s) => s.curve === "far")!;
      expect([segmentStart(edge)[0], segmentEnd(edge)[0]]).toEqual([far, far]);
    }
  });
});
