import { describe, expect, it } from "vitest";
import { defaultRegions, findRegions } from "./regions";
import { emptySketch, type Curve } from "./sketch";

const line = (id: string, start: [number, number], end: [number, number]): Curve => ({ id, kind: "line", start, end });
const circle = (id: string, centre: [number, number], radius: number): Curve => ({
  id,
  kind: "circle",
  centre,
  radius,
});
const rect = (p: string, x: number, y: number, w: number, h: number) => [
  line(`${p}1`, [x, y], [x + w, y]),
  line(`${p}2`, [x + w, y], [x + w, y + h]),
  line(`${p}3`, [x + w, y + h], [x, y + h]),
  line(`${p}4`, [x, y + h], [x, y]),
];
const of = (...curves: Curve[]) => findRegions({ ...emptySketch("top"), curves });
const areas = (...curves: Curve[]) =>
  of(...curves)
    .regions.map((r) => r.area)
    .sort((a, b) => a - b);
const close = (got: number[], want: number[]) => {
  expect(got).toHaveLength(want.length);
  want.forEach((w, i) => expect(got[i]).toBeCloseTo(w, 9));
};

describe("findRegions", () => {
  it("finds a rectangle, a circle, a hole", () => {
    close(areas(...rect("a", 0, 0, 4, 3)), [12]);
    close(areas(circle("o", [1, 1], 2)), [4 * Math.PI]);
    const r = of(...rect("a", 0, 0, 10, 10), circle("o", [5, 5], 2));
    expect(r.regions.map((x) => [x.name, x.depth])).toEqual([
      ["a1+a2+a3+a4", 0],
      ["o", 1],
    ]);
    expect(r.regions[0]!.area).toBeCloseTo(100 - 4 * Math.PI, 10);
    expect(defaultRegions(r)).toHaveLength(1);
  });
  it("nests: an island in a hole is taken again", () => {
    const r = of(...rect("a", 0, 0, 20, 20), circle("o", [10, 10], 6), circle("p", [10, 10], 3));
    expect(defaultRegions(r).map((x) => x.name)).toEqual(["a1+a2+a3+a4", "p"]);
    expect(defaultRegions(r)[0]!.area).toBeCloseTo(400 - 36 * Math.PI, 9);
  });
  it("parts what crosses: two overlapping rectangles are three regions", () =>
    close(areas(...rect("a", 0, 0, 4, 4), ...rect("b", 2, 2, 4, 4)), [4, 12, 12]));
  it("a circle on a rectangle's edge is cut by it", () =>
    close(areas(...rect("a", 0, 0, 10, 10), circle("o", [5, 10], 2)), [2 * Math.PI, 2 * Math.PI, 100 - 2 * Math.PI]));
  it("two circles make a lens and two moons", () => {
    const lens = 2 * Math.acos(0.5) - 0.5 * Math.sqrt(3);
    close(areas(circle("o", [0, 0], 1), circle("p", [1, 0], 1)), [lens, Math.PI - lens, Math.PI - lens]);
  });
  it("touching circles stay two", () =>
    close(areas(circle("o", [0, 0], 1), circle("p", [2, 0], 1)), [Math.PI, Math.PI]));
  it("a rectangle divided by a line, ends on the sides", () =>
    close(areas(...rect("a", 0, 0, 6, 4), line("m", [2, 0], [2, 4])), [8, 16]));
  it("two rectangles sharing an edge drawn twice", () =>
    close(areas(...rect("a", 0, 0, 2, 2), ...rect("b", 2, 0, 2, 2)), [4, 4]));
  it("says where an open profile has its gap", () => {
    const [a, b, c, d] = rect("a", 0, 0, 4, 3) as [Curve, Curve, Curve, Curve & { kind: "line" }];
    const r = of(a, b, c, { ...d, end: [0, 0.02] });
    expect(r.regions).toEqual([]);
    expect(r.gaps).toHaveLength(2);
    expect(r.gaps[0]!.nearest!.distance).toBeCloseTo(0.02, 9);
    expect(r.gaps.map((g) => g.curve).sort()).toEqual(["a1", "a4"]);
  });
  it("a stray line does not spoil a closed region", () => {
    const r = of(...rect("a", 0, 0, 4, 3), line("s", [10, 0], [12, 1]));
    expect(r.regions).toHaveLength(1);
    expect(r.gaps.map((g) => g.curve)).toEqual(["s", "s"]);
  });
  it("construction lines bound nothing", () =>
    expect(of(...rect("a", 0, 0, 4, 3).map((c) => ({ ...c, construction: true }))).regions).toEqual([]));
});
