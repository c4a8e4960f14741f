import { beforeEach, describe, expect, it } from "vitest";
import { applyToSketch } from "@/core/sketch/commands";
import { type SketchCommand } from "@/core/sketch/command-schema";
import { findRegions } from "@/core/sketch/regions";
import { emptySketch, pointAt, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { hitAt } from "../../sketch/hit";
import { makeTool } from "../registry";
import type { Hands, Pointer, Tool } from "../tool";

const PIXEL = 0.1;
let sketch: Sketch, said: string[], selected: string[];
const hands: Hands = {
  sketch: () => sketch,
  unit: "mm",
  selection: () => selected,
  select: (ids) => void (selected = [...ids]),
  type: () => {},
  say: (_, text) => void said.push(text),
  partAt: () => [],
  draw(command: SketchCommand) {
    const r = applyToSketch(sketch, command, "mm");
    if (r.ok) sketch = r.value;
    else said.push(r.refusal.sentence);
    return r.ok;
  },
};
beforeEach(() => {
  sketch = emptySketch("top");
  said = [];
  selected = [];
});
const pointer = (x: number, y: number, shift = false): Pointer => ({
  at: [x, y],
  hit: hitAt(sketch, [x, y], PIXEL),
  pixel: PIXEL,
  shift,
});
const click = (tool: Tool, ...places: [number, number][]) => {
  for (const [x, y] of places) {
    tool.move?.(pointer(x, y));
    tool.down?.(pointer(x, y));
    tool.up?.(pointer(x, y));
  }
};
const take = (name: string) => {
  const tool = makeTool(name, hands, () => {});
  tool.begin?.();
  return tool;
};
const diagnosis = () => {
  const r = solveSketch(sketch, "mm");
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
const area = () => findRegions(sketch).regions.reduce((sum, r) => sum + r.area, 0);

describe("every shape is drawn whole, with the freedoms it should have", () => {
  it.each<[string, string, [number, number][], number, number]>([
    [
      "rectangle by corners",
      "rectangle",
      [
        [5, 5],
        [45, 25],
      ],
      4,
      800,
    ],
    [
      "rectangle about its middle",
      "rectangle:centre",
      [
        [30, 30],
        [50, 40],
      ],
      4,
      800,
    ],
    [
      "slanting rectangle",
      "rectangle:slanting",
      [
        [5, 5],
        [35, 45],
        [21, 57],
      ],
      5,
      920,
    ],
    [
      "circle",
      "circle",
      [
        [30, 30],
        [40, 33],
      ],
      3,
      Math.PI * 109,
    ],
    [
      "circle by two points",
      "circle:two",
      [
        [10, 10],
        [30, 10.5],
      ],
      3,
      (Math.PI * 400.25) / 4,
    ],
    [
      "circle by three points",
      "circle:three",
      [
        [20, 10],
        [10, 20],
        [3, 13],
      ],
      3,
      Math.PI * 74.5,
    ],
    [
      "ellipse",
      "ellipse",
      [
        [30, 30],
        [50, 30],
        [33, 41],
      ],
      5,
      Math.PI * 220,
    ],
    [
      "polygon in a circle",
      "polygon",
      [
        [30, 30],
        [42, 30],
      ],
      4,
      6 * 36 * Math.sqrt(3),
    ],
    [
      "polygon about a circle",
      "polygon:outer",
      [
        [30, 30],
        [42, 30],
      ],
      4,
      2 * Math.sqrt(3) * 144,
    ],
    [
      "slot",
      "slot",
      [
        [10, 10],
        [40, 12],
        [40, 18],
      ],
      5,
      -1,
    ],
    [
      "bent slot",
      "slot:bent",
      [
        [50, 5],
        [80, 5.5],
        [50, 40],
        [52, 39],
      ],
      6,
      -1,
    ],
  ])("%s", (_, name, places, freedoms, size) => {
    click(take(name), ...places);
    expect(said).toEqual([]);
    const d = diagnosis();
    expect(d.solved).toBe(true);
    expect(d.freedoms).toBe(freedoms);
    if (size > 0) expect(area()).toBeCloseTo(size, 6);
    else expect(findRegions(sketch).gaps).toEqual([]);
  });
  it.each<[string, string, [number, number][], number]>([
    [
      "arc by three points",
      "arc",
      [
        [10, 10],
        [30, 10.5],
        [20, 17],
      ],
      5,
    ],
    [
      "arc by its centre",
      "arc:centre",
      [
        [20, 20],
        [32, 21],
        [19, 33],
      ],
      5,
    ],
    [
      "arc of an ellipse",
      "ellipse:arc",
      [
        [30, 30],
        [50, 31],
        [31, 41],
        [52, 32],
        [28, 44],
      ],
      7,
    ],
    ["point", "point", [[12, 13]], 2],
  ])("%s", (_, name, places, freedoms) => {
    click(take(name), ...places);
    expect(sketch.curves).toHaveLength(1);
    expect(diagnosis().freedoms).toBe(freedoms);
  });
  it("a spline ends by a click on its last point, with handles when asked", () => {
    const tool = take("spline:handles");
    click(tool, [10, 10], [30, 20], [50, 10], [50, 10.1]);
    expect(sketch.curves[0]).toMatchObject({
      kind: "spline",
      startHandle: expect.anything(),
      endHandle: expect.anything(),
    });
    expect(diagnosis().freedoms).toBe(10);
  });
  it("a tangent arc goes smoothly on from a line, and back to lines", () => {
    const tool = take("line");
    click(tool, [5, 20], [35, 20.4]);
    expect(tool.again!()).toBe(true);
    click(tool, [45, 31]);
    expect(tool.again!()).toBe(true);
    // straight on from the arc
    click(tool, [43.2, 50]);
    expect(sketch.curves.map((c) => c.kind)).toEqual(["line", "arc", "line"]);
    expect(sketch.constraints.filter((k) => k.kind === "tangent")).toHaveLength(2);
  });
});

describe("numbers typed while drawing", () => {
  it("become dimensions, in any unit", () => {
    const tool = take("rectangle");
    click(tool, [0, 0]);
    tool.move!(pointer(30, 20));
    expect(tool.fields!.map((f) => f.label)).toEqual(["width", "height"]);
    tool.type!(0, "2 in");
    tool.type!(1, "=50/2");
    expect(tool.enter!()).toBe(true);
    expect(diagnosis().freedoms).toBe(0);
    expect(pointAt(sketch, "l2.end")).toEqual([expect.closeTo(50.8, 9), expect.closeTo(25, 9)]);
    expect(sketch.dimensions.map((d) => d.value)).toEqual(["2 in", "=50/2"]);
  });
  it("what is not typed follows the pointer and stays free", () => {
    const tool = take("rectangle");
    click(tool, [0, 0]);
    tool.move!(pointer(30, 20));
    tool.type!(0, "44");
    click(tool, [30, 21]);
    expect(sketch.dimensions).toHaveLength(1);
    expect(pointAt(sketch, "l2.end")).toEqual([expect.closeTo(44, 9), expect.closeTo(21, 9)]);
  });
  it("a line takes length and angle; a level one is told level", () => {
    const tool = take("line");
    click(tool, [0, 0]);
    tool.move!(pointer(20, 9));
    tool.type!(0, "30");
    tool.type!(1, "60");
    tool.enter!();
    expect(pointAt(sketch, "l1.end")).toEqual([expect.closeTo(15, 9), expect.closeTo(15 * Math.sqrt(3), 9)]);
    expect(diagnosis().freedoms).toBe(0);
    tool.move!(pointer(60, 20));
    tool.type!(1, "0");
    tool.enter!();
    expect(sketch.constraints.some((k) => k.kind === "horizontal")).toBe(true);
  });
  it("a word is told and nothing is drawn", () => {
    const tool = take("circle");
    click(tool, [10, 10]);
    tool.move!(pointer(20, 10));
    tool.type!(0, "wide");
    expect(tool.enter!()).toBe(true);
    expect(said[0]).toMatch(/no number|no size/);
    expect(sketch.curves).toHaveLength(0);
  });
  it("the number of sides stays for the next polygon", () => {
    const tool = take("polygon");
    click(tool, [30, 30]);
    tool.move!(pointer(42, 30));
    tool.type!(0, "8");
    click(tool, [42, 30]);
    expect(sketch.curves).toHaveLength(9);
    click(tool, [90, 30], [102, 30]);
    expect(sketch.curves).toHaveLength(18);
  });
});

describe("edits gather what was picked before", () => {
  beforeEach(() => click(take("circle"), [20, 20], [26, 20]));
  it("a row is previewed and made by Enter", () => {
    selected = ["c1"];
    const tool = take("pattern");
    tool.type!(0, "4");
    tool.type!(1, "15");
    expect(tool.preview.curves).toHaveLength(3);
    tool.enter!();
    expect(sketch.curves).toHaveLength(4);
    expect(pointAt(sketch, "c4.centre")[0]).toBeCloseTo(65, 9);
  });
  it("a copy goes by the point it is taken by", () => {
    selected = ["c1"];
    click(take("transform:copy"), [20, 20], [50, 35]);
    expect(pointAt(sketch, "c2.centre")).toEqual([expect.closeTo(50, 9), expect.closeTo(35, 9)]);
  });
  it("a turn by a typed angle about a point", () => {
    selected = ["c1"];
    const tool = take("transform:turn");
    click(tool, [0, 0]);
    tool.type!(0, "90");
    tool.enter!();
    expect(pointAt(sketch, "c1.centre")).toEqual([expect.closeTo(-20, 9), expect.closeTo(20, 9)]);
  });
  it("another way of the tool keeps what was gathered", () => {
    selected = ["c1"];
    take("pattern").release!();
    expect(selected).toEqual(["c1"]);
  });
  it("an offset goes to the pointer's side by a typed distance", () => {
    const tool = take("offset");
    click(tool, [26, 20]);
    tool.move!(pointer(40, 20));
    tool.type!(0, "4");
    tool.enter!();
    expect(sketch.curves[1]).toMatchObject({ kind: "circle", radius: expect.closeTo(10, 9) });
  });
});
