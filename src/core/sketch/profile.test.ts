import { describe, expect, it } from "vitest";
import { axesOf, closings, missingAxisSegment, turningFault } from "./profile";
import { findRegions } from "./regions";
import { emptySketch, type Curve, type Sketch } from "./sketch";

const line = (id: string, start: [number, number], end: [number, number], construction?: "centre-line"): Curve => ({
  id,
  kind: "line",
  start,
  end,
  ...(construction && { construction }),
});
const sketch = (...curves: Curve[]): Sketch => ({ ...emptySketch("front"), curves });
const box = (x0: number, x1: number) =>
  sketch(
    line("a", [x0, 0], [x1, 0]),
    line("b", [x1, 0], [x1, 20]),
    line("c", [x1, 20], [x0, 20]),
    line("d", [x0, 20], [x0, 0]),
  );

describe("open profiles", () => {
  it("ends a hair apart are paired, the nearest first", () => {
    const s = sketch(line("a", [0, 0], [10, 0]), line("b", [10.003, 0], [10, 10]), line("c", [10, 10], [0, 0.5]));
    const { gaps } = findRegions(s);
    expect(closings(s, gaps, 0.1).map((c) => c.ends)).toEqual([["a.end", "b.start"]]);
    expect(closings(s, gaps, 1)).toHaveLength(2);
    expect(closings(s, gaps, 0.001)).toEqual([]);
  });
  it("a half profile open along its axis is offered the missing segment", () => {
    const s = sketch(
      line("g", [0, -5], [0, 30], "centre-line"),
      line("a", [0, 0], [10, 0]),
      line("b", [10, 0], [10, 20]),
      line("c", [10, 20], [0, 20]),
    );
    expect(axesOf(s)[0]).toBe("g");
    expect(missingAxisSegment(s, findRegions(s).gaps)).toEqual({ ends: ["a.start", "c.end"], axis: "g" });
  });
});

describe("profiles for turning", () => {
  const fault = (s: Sketch) => turningFault(s, findRegions(s).regions[0]!, "y-axis", "mm");
  it("beside or on the axis is right", () => {
    expect(fault(box(0, 10))).toBeUndefined();
    expect(fault(box(5, 10))).toBeUndefined();
  });
  it("across the axis is told", () => expect(fault(box(-5, 10))).toContain("crosses"));
  it("round and square to the axis is right, at a slant it leaves a point", () => {
    const half = (centre: [number, number], top: number) =>
      sketch({ id: "a", kind: "arc", centre, start: [0, -top], end: [0, top] }, line("b", [0, top], [0, -top]));
    expect(fault(half([0, 0], 10))).toBeUndefined();
    expect(fault(half([-3, 0], Math.sqrt(91)))).toContain("slant");
  });
});
