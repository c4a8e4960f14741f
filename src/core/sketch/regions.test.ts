import { describe, expect, it } from "vitest";
import { defaultRegions, findRegions, regionOf } from "./regions";
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

describe("regions with the same outline", () => {
  const wave = (id: string, y: number): Curve => ({
    id,
    kind: "spline",
    through: [0, 1, 2, 3, 4].map((k): [number, number] => [10 * k, y + (k % 2 ? 6 : -6)]),
  });
  const cut = (x: number) => of(circle("c1", [0, 0], 10), line("l1", [x, -20], [x, 20])).regions;
  it("are told apart by the sides of their curves", () =>
    expect(cut(3).map((r) => r.name)).toEqual(["c1+l1#ll", "c1+l1#lr"]));
  it("stay themselves when the line moves past the middle", () => {
    for (const { identity } of cut(-6)) {
      const areas = [-6, -2, 0.5, 4, 9].map((x) => regionOf(cut(x), identity)!.area);
      // one only shrinks, the other only grows
      const grows = areas[1]! > areas[0]!;
      areas.slice(1).forEach((a, i) => expect(a > areas[i]!).toBe(grows));
    }
  });
  it("are not guessed at by their curves alone, nor when one of them is gone", () => {
    expect(regionOf(cut(3), "c1+l1")).toBeUndefined();
    expect(regionOf(of(circle("c1", [0, 0], 10)).regions, "c1+l1#ll")).toBeUndefined();
    expect(regionOf(of(...rect("a", 0, 0, 4, 4)).regions, "a1+a2+a3+a4")!.area).toBeCloseTo(16, 9);
  });
  it("on the same sides are told apart along the curve, and lost when their number changes", () => {
    const over = (y: number) => of(wave("w", y), line("l1", [-5, 0], [45, 0])).regions;
    const [first, second] = over(0).filter((r) => r.identity.includes(".1of") || r.identity.includes(".2of"));
    expect(first!.identity).not.toBe(second!.identity);
    for (const r of over(0)) expect(regionOf(over(0.5), r.identity)!.area / r.area).toBeGreaterThan(0.5);
    const gone = over(0).filter((r) => !regionOf(over(7), r.identity));
    expect(gone.length).toBeGreaterThan(0);
  });
});
