import { beforeEach, describe, expect, it } from "vitest";
import { findRegions } from "../regions";
import { circle, polyline, rectangle } from "../shapes";
import { curveById, pointAt, type Arc, type Line } from "../sketch";
import { clipOf } from "./clipboard";
import { clean, s, notice, run, refusal, diagnosis, area, pin, plate, line, near } from "../testing/workpiece";

beforeEach(() => clean());

describe("trim", () => {
  it("takes the stretch between two meetings and ties both new ends", () => {
    line([0, 0], [30, 0]);
    line([10, -5], [10, 5]);
    line([20, -5], [20, 5]);
    pin("horizontal", ["l1"]);
    run({ do: "trim", id: "l1", near: [15, 0] });
    expect(s.curves).toHaveLength(4);
    near("l1.end", [10, 0]);
    near("l4.start", [20, 0]);
    expect(s.constraints.filter((k) => k.kind === "point-on-curve")).toHaveLength(2);
    expect(s.constraints.some((k) => k.kind === "collinear")).toBe(true);
  });
  it("an end goes to the nearest meeting, its length with it", () => {
    line([0, 0], [30, 0]);
    line([10, -5], [10, 5]);
    pin("length", ["l1"], 30);
    run({ do: "trim", id: "l1", near: [25, 0] });
    near("l1.end", [10, 0]);
    expect(s.dimensions).toHaveLength(0);
    expect(notice).toContain("length");
  });
  it("what meets nothing goes whole", () => {
    line([0, 0], [30, 0]);
    run({ do: "trim", id: "l1", near: [25, 0] });
    expect(s.curves).toHaveLength(0);
  });
  it("a circle becomes an arc and keeps its size and centre", () => {
    run(circle(s, [0, 0], 10));
    pin("coincident", ["c1.centre", "origin"]);
    pin("diameter", ["c1"], 20);
    line([-15, 0], [15, 0]);
    run({ do: "trim", id: "c1", near: [0, -10] });
    const a = curveById(s, "c1") as Arc;
    expect(a.kind).toBe("arc");
    near("c1.start", [10, 0]);
    near("c1.end", [-10, 0]);
    expect(s.dimensions).toHaveLength(1);
    expect(diagnosis().loose).not.toContain("c1.centre");
  });
  it("the outline of two crossing rectangles", () => {
    run(rectangle(s, [0, 0], [20, 10]));
    run(rectangle(s, [10, 5], [30, 15]));
    run({ do: "trim", id: "l2", near: [20, 8] });
    run({ do: "trim", id: "l3", near: [15, 10] });
    run({ do: "trim", id: "l5", near: [15, 5] });
    run({ do: "trim", id: "l8", near: [10, 7] });
    expect(findRegions(s).regions).toHaveLength(1);
    expect(area()).toBeCloseTo(200 + 200 - 50, 6);
  });
  it("a spline keeps its shape to the cut", () => {
    run({
      do: "draw",
      curves: [
        {
          id: "s1",
          kind: "spline",
          through: [
            [0, 0],
            [10, 6],
            [20, 0],
            [30, 6],
          ],
        },
      ],
      constraints: [],
    });
    line([15, -20], [15, 20]);
    const before = findRegions(s).gaps.length;
    run({ do: "trim", id: "s1", near: [25, 3] });
    expect(before).toBeGreaterThan(0);
    expect(pointAt(s, "s1.end")[0]).toBeCloseTo(15, 6);
    expect(pointAt(s, "s1.p1")).toEqual([10, 6]);
  });
});

describe("extend and split", () => {
  it("a line goes on to the next curve", () => {
    line([0, 0], [10, 0]);
    run(circle(s, [30, 0], 5));
    run({ do: "extend", id: "l1", near: [9, 0] });
    near("l1.end", [25, 0]);
  });
  it("an arc goes round to the next curve", () => {
    run({
      do: "draw",
      curves: [{ id: "a1", kind: "arc", centre: [0, 0], start: [10, 0], end: [0, 10] }],
      constraints: [],
    });
    line([-20, 0], [-5, 0]);
    run({ do: "extend", id: "a1", near: [0, 10] });
    near("a1.end", [-10, 0]);
  });
  it("nothing ahead is refused", () => {
    line([0, 0], [10, 0]);
    expect(refusal({ do: "extend", id: "l1", near: [9, 0] })).toBe("nothing-ahead");
  });
  it("a split line is two on one line", () => {
    line([0, 0], [10, 0]);
    run({ do: "split", id: "l1", near: [4, 0] });
    near("l2.start", [4, 0]);
    // the joint can slide along: 4 of the line, 1 of the joint
    expect(diagnosis().freedoms).toBe(5);
  });
});

describe("corners", () => {
  it("a fillet keeps the corner for its dimensions", () => {
    plate();
    run({ do: "corner", kind: "fillet", corners: ["l1.end", "l2.end", "l3.end", "l4.end"], value: 4 });
    const d = diagnosis();
    expect(d.freedoms).toBe(0);
    expect(d.surplus).toEqual([]);
    expect(area()).toBeCloseTo(800 - (4 - Math.PI) * 16, 9);
    run({ do: "resize", id: "m1", value: 50 });
    expect(area()).toBeCloseTo(1000 - (4 - Math.PI) * 16, 9);
  });
  it("those made in one go share a value that can be parted", () => {
    plate();
    run({ do: "corner", kind: "fillet", corners: ["l1.end", "l2.end"], value: 4 });
    const [a, b] = s.dimensions.filter((d) => d.kind === "radius");
    expect(b!.value).toBe(`=${a!.id}`);
    run({ do: "resize", id: a!.id, value: 5 });
    expect(area()).toBeCloseTo(800 - ((4 - Math.PI) / 2) * 25, 9);
    run({ do: "resize", id: b!.id, value: 2 });
    expect(area()).toBeCloseTo(800 - ((4 - Math.PI) / 4) * (25 + 4), 9);
  });
  it("made later, a corner does not link itself", () => {
    plate();
    run({ do: "corner", kind: "fillet", corners: ["l1.end"], value: 4 });
    run({ do: "corner", kind: "fillet", corners: ["l2.end"], value: 4 });
    expect(s.dimensions.filter((d) => d.kind === "radius").map((d) => d.value)).toEqual([4, 4]);
  });
  it("a chamfer cuts off a triangle", () => {
    plate();
    run({ do: "corner", kind: "chamfer", corners: ["l1.end"], value: 3 });
    expect(area()).toBeCloseTo(800 - 4.5, 9);
    expect(diagnosis().freedoms).toBe(0);
  });
  it("too large a radius says how large can be", () => {
    plate();
    expect(refusal({ do: "corner", kind: "fillet", corners: ["l1.end"], value: 30 })).toBe("too-large");
  });
});

describe("offset, mirror, patterns", () => {
  it("offsets a closed outline inwards by one size", () => {
    plate();
    run({ do: "offset", id: "l1", value: 3, left: true });
    expect(diagnosis().freedoms).toBe(0);
    expect(findRegions(s).regions.find((r) => r.name === "l5+l6+l7+l8")!.area).toBeCloseTo(34 * 14, 9);
    // one number is lettered and says it for all four
    expect(s.dimensions.filter((d) => d.id >= "m3").map((d) => d.repeats ?? false)).toEqual([false, true, true, true]);
    run({ do: "resize", id: "m3", value: 5 });
    expect(findRegions(s).regions.find((r) => r.name === "l5+l6+l7+l8")!.area).toBeCloseTo(30 * 10, 9);
  });
  it("offsets a rounded outline", () => {
    plate();
    run({ do: "corner", kind: "fillet", corners: ["l1.end", "l2.end", "l3.end", "l4.end"], value: 6 });
    run({ do: "offset", id: "l1", value: 2, left: true });
    expect(diagnosis().freedoms).toBe(0);
    const outer = 800 - (4 - Math.PI) * 36,
      inner = 36 * 16 - (4 - Math.PI) * 16;
    expect(
      findRegions(s)
        .regions.map((r) => r.area)
        .sort((a, b) => a - b)[0],
    ).toBeCloseTo(outer - inner, 7);
  });
  it("the image of a chain follows it", () => {
    run(
      polyline(
        s,
        [
          [0, 0],
          [10, 0],
          [10, 20],
          [0, 20],
        ],
        false,
      ),
    );
    run({ do: "constrain", kind: "point-on-curve", of: ["l1.start", "y-axis"] });
    run({ do: "constrain", kind: "point-on-curve", of: ["l3.end", "y-axis"] });
    const free = diagnosis().freedoms;
    run({ do: "mirror", curves: ["l1", "l2", "l3"], about: "y-axis" });
    expect(diagnosis().freedoms).toBe(free);
    expect(area()).toBeCloseTo(400, 9);
    pin("horizontal-distance", ["origin", "l2.start"], 15);
    near("l5.start", [-15, 0]);
  });
  it("a mirrored arc bulges the other way", () => {
    run({
      do: "draw",
      curves: [{ id: "a1", kind: "arc", centre: [10, 0], start: [10, -5], end: [10, 5] }],
      constraints: [],
    });
    run({ do: "mirror", curves: ["a1"], about: "y-axis" });
    near("a2.start", [-10, 5]);
    near("a2.end", [-10, -5]);
  });
  it("a row follows its first hole, spacing and count", () => {
    run(circle(s, [0, 0], 2));
    const free = diagnosis().freedoms;
    run({ do: "linear-pattern", curves: ["c1"], count: 4, step: [10, 0] });
    expect(diagnosis().freedoms).toBe(free);
    near("c4.centre", [30, 0]);
    run({ do: "resize", id: "m1", value: 12 });
    near("c4.centre", [pointAt(s, "c1.centre")[0] + 36, pointAt(s, "c1.centre")[1]]);
    run({ do: "regroup", id: "g1", count: 6 });
    expect(s.curves).toHaveLength(6);
    expect(s.dimensions.map((d) => d.value)).toEqual([12]);
    expect(diagnosis().freedoms).toBe(free);
  });
});

describe("a ring", () => {
  it("goes round a point, its count can change", () => {
    run(circle(s, [20, 0], 3));
    run({ do: "circular-pattern", curves: ["c1"], count: 6, about: "origin", angle: 360 });
    near("c4.centre", [-20, 0]);
    expect(diagnosis().freedoms).toBe(3);
    run({ do: "regroup", id: "g1", count: 4 });
    near("c2.centre", [0, 20]);
    expect(s.curves).toHaveLength(4);
  });
  it("a polygon keeps its circle when its sides change", () => {
    run(circle(s, [0, 0], 10));
    run({ do: "construction", ids: ["c1"], on: true });
    run({ do: "polygon", circle: "c1", count: 6, outside: false, turn: 0 });
    expect(area()).toBeCloseTo((3 * Math.sqrt(3) * 100) / 2, 9);
    expect(diagnosis().freedoms).toBe(4);
    run({ do: "regroup", id: "g1", count: 4 });
    expect(area()).toBeCloseTo(200, 9);
  });
  it("a polygon about its circle", () => {
    run(circle(s, [0, 0], 10));
    run({ do: "construction", ids: ["c1"], on: true });
    run({ do: "polygon", circle: "c1", count: 4, outside: true, turn: Math.PI / 4 });
    expect(area()).toBeCloseTo(400, 9);
    expect(diagnosis().freedoms).toBe(4);
  });
});

describe("moving, copying, pasting", () => {
  it("a move keeps what is still true and says what it dropped", () => {
    plate();
    run({ do: "transform", curves: ["l1", "l2", "l3", "l4"], by: [5, 0] });
    near("l1.start", [5, 0]);
    expect(notice).toContain("coincident");
    expect(s.dimensions).toHaveLength(2);
  });
  it("a turn drops level and upright", () => {
    plate();
    run({ do: "transform", curves: ["l1", "l2", "l3", "l4"], about: [0, 0], turn: 90 });
    near("l1.end", [0, 40]);
    expect(s.constraints.some((k) => k.kind === "horizontal")).toBe(false);
  });
  it("scaling multiplies sizes", () => {
    plate();
    run({ do: "transform", curves: ["l1", "l2", "l3", "l4"], about: [0, 0], scale: 2 });
    near("l2.end", [80, 40]);
    expect(s.dimensions.map((d) => d.value)).toEqual([80, 40]);
  });
  it("a copy repeats sizes by name", () => {
    plate();
    run({ do: "transform", curves: ["l1", "l2", "l3", "l4"], by: [60, 0], copy: true });
    expect(diagnosis().freedoms).toBe(2);
    run({ do: "resize", id: "m1", value: 30 });
    expect((curveById(s, "l5") as Line).end[0] - (curveById(s, "l5") as Line).start[0]).toBeCloseTo(30, 9);
  });
  it("a paste goes into another sketch with its own sizes", () => {
    plate();
    const clip = clipOf(s, ["l1", "l2", "l3", "l4"], "mm");
    clean("front");
    run({ do: "paste", clip, by: [10, 10] });
    expect(area()).toBeCloseTo(800, 9);
    expect(diagnosis().freedoms).toBe(2);
  });
});
