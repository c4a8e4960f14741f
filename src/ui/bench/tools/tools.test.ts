import { beforeEach, describe, expect, it } from "vitest";
import { applyToSketch } from "@/core/sketch/commands";
import { type SketchCommand } from "@/core/sketch/command-schema";
import { emptySketch, pointAt, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { hitAt } from "../sketch/hit";
import { snapHeading, snapPoint } from "../sketch/snap";
import { dimensionGraphic } from "../sketch/dimension-graphic";
import { marksOf } from "../sketch/marks";
import { meant } from "./dimension";
import { makeTool } from "./registry";
import type { Hands, NewDimension, Pointer, Tool } from "./tool";

/** One pixel is a tenth of a millimetre here. */
const PIXEL = 0.1;

let sketch: Sketch;
let selection: string[];
let said: string[];
let typed: NewDimension | undefined;
const hands: Hands = {
  sketch: () => sketch,
  unit: "mm",
  selection: () => selection,
  draw(command: SketchCommand) {
    const r = applyToSketch(sketch, command, "mm");
    if (r.ok) sketch = r.value;

    return r.ok;
  },
  select: (ids) => void (selection = [...ids]),
  type: (fresh) => void (typed = fresh),
  say: (_, text) => void said.push(text),
  partAt: () => [],
};
beforeEach(() => {
  sketch = emptySketch("top");
  selection = [];
  said = [];
  typed = undefined;
});

const pointer = (x: number, y: number, shift = false): Pointer => ({
  at: [x, y],
  hit: hitAt(sketch, [x, y], PIXEL),
  pixel: PIXEL,
  shift,
});
function click(tool: Tool, x: number, y: number, shift = false) {
  tool.move?.(pointer(x, y, shift));
  tool.down?.(pointer(x, y, shift));
  tool.up?.(pointer(x, y, shift));
}
function take(name: string): Tool {
  const tool = makeTool(name, hands, () => {});
  tool.begin?.();
  return tool;
}
function box(w = 40, h = 20) {
  const tool = take("rectangle");
  click(tool, 0, 0);
  click(tool, w, h);
}
const freedoms = () => {
  const r = solveSketch(sketch, "mm");
  return r.ok ? r.value.freedoms : -1;
};

describe("the line tool", () => {
  it("chains, finds level and upright, and closes on its first point", () => {
    const tool = take("line");
    click(tool, 0, 0);
    click(tool, 30, 0.4);
    click(tool, 30.3, 20);
    click(tool, 0.2, 0.1);
    expect(sketch.curves).toHaveLength(3);
    expect(sketch.constraints.map((c) => c.kind).sort()).toEqual([
      "coincident",
      "coincident",
      "coincident",
      "coincident",
      "horizontal",
      "vertical",
    ]);
    // closed: the next click begins anew
    click(tool, 50, 50);
    expect(sketch.curves).toHaveLength(3);
    expect(tool.cancel!()).toBe(true);
    expect(tool.cancel!()).toBe(false);
  });
  it("makes the closing line upright when it nearly is, though its end is a point found", () => {
    const tool = take("line");
    for (const [x, y] of [
      [0, 0],
      [30, 0.2],
      [30.1, 20],
      [0.3, 20.2],
      [0, 0],
    ] as const)
      click(tool, x, y);
    expect(sketch.curves).toHaveLength(4);
    // a rectangle on the origin: two freedoms, like one drawn by its tool
    expect(freedoms()).toBe(2);
  });
  it("finds nothing with the key held", () => {
    const tool = take("line");
    click(tool, 0, 0, true);
    click(tool, 30, 0.4, true);
    expect(sketch.constraints).toEqual([]);
    expect(freedoms()).toBe(4);
  });
  it("overlooks a click on the spot", () => {
    const tool = take("line");
    click(tool, 5, 5);
    click(tool, 5.05, 5.05);
    expect(sketch.curves).toHaveLength(0);
  });
});

describe("the rectangle and circle tools", () => {
  it("a rectangle from the origin has two freedoms", () => {
    box();
    expect(freedoms()).toBe(2);
    expect(pointAt(sketch, "l2.end")).toEqual([40, 20]);
  });
  it("a sliver is not drawn", () => {
    const tool = take("rectangle");
    click(tool, 0, 0);
    click(tool, 30, 0.1);
    expect(sketch.curves).toHaveLength(0);
  });
  it("a circle on a midpoint is tied to it", () => {
    box();
    const tool = take("circle");
    tool.move!(pointer(20.3, 0.2));
    expect(tool.preview.mark?.label).toBe("midpoint");
    click(tool, 20.3, 0.2);
    click(tool, 24, 0);
    expect(sketch.constraints.some((c) => c.kind === "midpoint" && c.of[0] === "c1.centre" && c.of[1] === "l1")).toBe(
      true,
    );
    expect(pointAt(sketch, "c1.centre")).toEqual([20, 0]);
  });
});

describe("picking and dragging", () => {
  it("picks, adds with the key, and takes back", () => {
    box();
    const tool = take("pick");
    click(tool, 10, 0);
    expect(selection).toEqual(["l1"]);
    click(tool, 40, 10, true);
    expect(selection).toEqual(["l1", "l2"]);
    click(tool, 10, 0, true);
    expect(selection).toEqual(["l2"]);
  });
  it("drags a loose corner and keeps the sides level and upright", () => {
    box();
    const tool = take("pick");
    tool.down!(pointer(40, 20));
    tool.move!(pointer(45, 26));
    expect(tool.preview.sketch).toBeDefined();
    tool.move!(pointer(50, 30));
    tool.up!(pointer(50, 30));
    expect(pointAt(sketch, "l2.end")[0]).toBeCloseTo(50, 6);
    expect(pointAt(sketch, "l2.start")[1]).toBeCloseTo(0, 9);
  });
  it("says that what is pinned cannot be dragged", () => {
    box();
    const tool = take("pick");
    tool.down!(pointer(0, 0));
    tool.move!(pointer(5, 5));
    expect(said[0]).toMatch(/pinned/);
  });
  it("a box takes only what lies inside whole", () => {
    box();
    const tool = take("pick");
    tool.down!(pointer(-5, -5));
    tool.move!(pointer(45, 5));
    tool.up!(pointer(45, 5));
    expect(selection).toEqual(["l1"]);
  });
});

describe("constraining", () => {
  it("applies to what is selected, to each where one is enough", () => {
    const line = take("line");
    click(line, 0, 5, true);
    click(line, 30, 9, true);
    line.cancel!();
    click(line, 0, 25, true);
    click(line, 30, 21, true);
    selection = ["l1", "l2"];
    take("constrain:horizontal");
    expect(sketch.constraints.map((c) => [c.kind, ...c.of])).toEqual([
      ["horizontal", "l1"],
      ["horizontal", "l2"],
    ]);
    expect(selection).toEqual([]);
  });
  it("collects what it needs in either order", () => {
    box();
    const circle = take("circle");
    click(circle, 12, 9, true);
    click(circle, 15, 9, true);
    const tool = take("constrain:point-on-curve");
    click(tool, 30, 0);
    click(tool, 12, 9);
    expect(sketch.constraints[sketch.constraints.length - 1]).toMatchObject({
      kind: "point-on-curve",
      of: ["c1.centre", "l1"],
    });
  });
  it("says what does not fit", () => {
    box();
    click(take("constrain:concentric"), 10, 0);
    expect(said[0]).toMatch(/pick two circles/);
  });
});

describe("what a dimension means", () => {
  beforeEach(() => {
    const line = take("line");
    click(line, 0, 0, true);
    click(line, 30, 20, true);
    line.cancel!();
    const circle = take("circle");
    click(circle, 60, 10, true);
    click(circle, 65, 10, true);
  });

  it.each<[string, string[], [number, number], string]>([
    ["a slanting line, above it", ["l1"], [15, 60], "horizontal-distance"],
    ["a slanting line, beside it", ["l1"], [70, 10], "vertical-distance"],
    ["a slanting line, along it", ["l1"], [14, 11], "length"],
    ["a circle", ["c1"], [80, 20], "diameter"],
    ["a point and the origin", ["l1.end", "origin"], [15, 60], "horizontal-distance"],
    ["a circle and an axis", ["c1", "x-axis"], [80, 5], "point-line"],
    ["a line and an axis", ["l1", "x-axis"], [20, 4], "angle"],
  ])("%s", (_, picked, at, kind) => {
    expect(meant(sketch, picked, at)?.kind).toBe(kind);
  });
  it("the opposite sector of an angle is its supplement", () => {
    expect(meant(sketch, ["x-axis", "l1"], [20, 5])?.flip).toBeUndefined();
    expect(meant(sketch, ["x-axis", "l1"], [-10, 20])?.flip).toBe(true);
  });
  it("an axis alone means nothing", () => expect(meant(sketch, ["x-axis"], [5, 5])).toBeUndefined());

  it("the tool picks, places, and asks for the size", () => {
    const tool = take("dimension");
    click(tool, 65, 10);
    click(tool, 80, 30);
    expect(typed).toEqual({ kind: "diameter", of: ["c1"], at: [80, 30] });
  });
  it("every kind can be drawn", () => {
    const kinds = [
      ["length", ["l1"]],
      ["distance", ["l1.start", "c1.centre"]],
      ["horizontal-distance", ["origin", "l1.end"]],
      ["vertical-distance", ["origin", "l1.end"]],
      ["point-line", ["c1.centre", "l1"]],
      ["radius", ["c1"]],
      ["diameter", ["c1"]],
      ["angle", ["x-axis", "l1"]],
    ] as const;
    for (const [kind, of] of kinds) {
      for (const at of [undefined, [10, 40] as const]) {
        const g = dimensionGraphic(sketch, { kind, of: [...of], at }, PIXEL)!;
        expect(g.lines.length).toBeGreaterThan(0);
        for (const v of [...g.label, ...g.lines.flat(2)]) expect(Number.isFinite(v)).toBe(true);
      }
    }
  });
});

describe("what lies under the pointer", () => {
  it("points come before curves, curves before axes", () => {
    box();
    expect(hitAt(sketch, [40.3, 0.3], PIXEL)?.kind).toBe("point");
    expect(hitAt(sketch, [20, 0.3], PIXEL)?.ref).toBe("l1");
    expect(hitAt(sketch, [-20, 0.3], PIXEL)?.ref).toBe("x-axis");
    expect(hitAt(sketch, [20, 10], PIXEL)).toBeUndefined();
  });
  it("a slanting line is followed along and across", () => {
    const line = take("line");
    click(line, 0, 0, true);
    click(line, 30, 20, true);
    expect(snapHeading(sketch, [0, 50], [30, 70.3], PIXEL, false).label).toBe("parallel");
    expect(snapHeading(sketch, [0, 50], [-20, 80.4], PIXEL, false).label).toBe("perpendicular");
    expect(snapHeading(sketch, [0, 50], [30, 90], PIXEL, false).label).toBe("");
    expect(snapPoint(sketch, [0.2, 0.1], PIXEL, true).ties).toEqual([]);
  });
  it("marks of one place stand side by side", () => {
    box();
    hands.draw({ do: "constrain", kind: "parallel", of: ["l1", "l3"] });
    const places = marksOf(sketch)
      .filter((m) => m.at[0] === 20 && m.at[1] === 0)
      .map((m) => m.place);
    expect(places).toEqual([0, 1]);
  });
});
