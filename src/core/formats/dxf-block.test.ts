import { describe, expect, it } from "vitest";
import { idsFor } from "@/core/sketch/edit/rewire";
import { defaultRegions, findRegions } from "@/core/sketch/regions";
import { readDxf } from "./dxf-read";
import { empty, pairs, read } from "./testing/dxf-text";

type Rows = readonly (string | number)[];
const block = (name: string, base: readonly [number, number], ...rows: Rows): Rows => [
  ...[0, "BLOCK", 8, "0", 2, name, 10, base[0], 20, base[1]],
  ...rows,
  ...[0, "ENDBLK"],
];
const drawing = (blocks: readonly Rows[], ...entities: Rows): string =>
  pairs(
    ...[0, "SECTION", 2, "BLOCKS", ...blocks.flat(), 0, "ENDSEC"],
    ...[0, "SECTION", 2, "ENTITIES", ...entities, 0, "ENDSEC", 0, "EOF"],
  );
const insert = (name: string, x: number, y: number, ...more: Rows): Rows => [
  0,
  "INSERT",
  2,
  name,
  10,
  x,
  20,
  y,
  ...more,
];
const circle = (x: number, y: number, r: number, ...more: Rows): Rows => [0, "CIRCLE", 10, x, 20, y, 40, r, ...more];
/** A closed outline: a square of four with one corner round, at the base (2, 1). */
const keyed = block(
  "Key",
  [2, 1],
  ...[0, "LWPOLYLINE", 90, 5, 70, 1, 10, 2, 20, 1, 10, 6, 20, 1, 10, 6, 20, 4, 42, Math.tan(Math.PI / 8)],
  ...[10, 5, 20, 5, 42, 0, 10, 2, 20, 5],
);
const KEY = 16 - 1 + Math.PI / 4;
const areas = (text: string): number[] => {
  const { curves, constraints } = read(text);
  return defaultRegions(findRegions({ ...empty, curves, constraints })).map((r) => r.area);
};
const near = (got: readonly number[], want: readonly number[]) => {
  expect(got.length).toBe(want.length);
  got.forEach((v, i) => expect(v).toBeCloseTo(want[i]!, 8));
};

describe("blocks of a DXF file", () => {
  it("are put where INSERT says, whatever the case of their names", () => {
    const text = drawing([keyed], ...insert("KEY", 10, 20), ...insert("key", -30, 0, 50, 90));
    near(areas(text), [KEY, KEY]);
    const [first] = read(text).curves;
    expect(first).toMatchObject({ kind: "line", start: [10, 20], end: [14, 20] });
  });
  it("are scaled, mirrored and turned", () => {
    near(areas(drawing([keyed], ...insert("Key", 0, 0, 41, 3, 42, 3))), [9 * KEY]);
    near(areas(drawing([keyed], ...insert("Key", 0, 0, 41, -2, 42, 2, 50, 30))), [4 * KEY]);
    near(areas(drawing([keyed], ...insert("Key", 0, 0, 230, -1))), [KEY]);
  });
  it("that are stretched have ellipses for circles, and enclose as much", () => {
    near(areas(drawing([keyed], ...insert("Key", 5, 5, 41, 3, 42, 0.5, 50, 17))), [1.5 * KEY]);
    near(areas(drawing([keyed], ...insert("Key", 5, 5, 41, -3, 42, 0.5))), [1.5 * KEY]);
    const { curves } = read(drawing([block("C", [0, 0], ...circle(1, 0, 2))], ...insert("C", 0, 0, 41, 3)));
    expect(curves).toEqual([{ id: "e1", kind: "ellipse", centre: [3, 0], major: [9, 0], minor: [3, 2] }]);
  });
  it("lie in blocks, stretched aslant", () => {
    const inner = block("Inner", [0, 0], ...circle(0, 0, 1)),
      outer = block("Outer", [0, 0], ...insert("Inner", 4, 0, 41, 2, 42, 1, 50, 30), ...circle(0, 0, 0.5));
    const [inside, whole] = areas(drawing([inner, outer], ...insert("Outer", 0, 0, 41, 1, 42, 3))).sort(
      (a, b) => a - b,
    );
    near([inside!, whole!], [Math.PI * 0.75, Math.PI * 6]);
  });
  it("are laid in rows and columns", () => {
    const grid = insert("C", 0, 0, 70, 4, 71, 3, 44, 10, 45, 8, 50, 45);
    const { curves } = read(drawing([block("C", [0, 0], ...circle(0, 0, 1))], ...grid));
    expect(curves).toHaveLength(12);
    const last = curves[11] as { centre: [number, number] };
    expect(last.centre[0]).toBeCloseTo((30 - 16) * Math.SQRT1_2, 9);
    expect(last.centre[1]).toBeCloseTo((30 + 16) * Math.SQRT1_2, 9);
  });
  it("take the layer they are put on where they have none, and layers are one whatever their case", () => {
    const c = block("C", [0, 0], ...circle(0, 0, 1, 8, "0"), ...circle(5, 0, 1, 8, "construction"));
    const { curves } = read(drawing([c], ...insert("C", 0, 0, 8, "Centre-Line")));
    expect(curves.map((k) => "construction" in k && k.construction)).toEqual(["centre-line", true]);
    const hidden = pairs(
      ...[
        0,
        "SECTION",
        2,
        "TABLES",
        0,
        "TABLE",
        2,
        "LAYER",
        0,
        "LAYER",
        2,
        "Cold",
        70,
        1,
        62,
        7,
        0,
        "ENDTAB",
        0,
        "ENDSEC",
      ],
    );
    const text =
      hidden + drawing([c], ...insert("C", 0, 0, 8, "COLD"), ...circle(9, 9, 1, 8, "cold"), ...circle(1, 1, 1));
    const { curves: seen, left } = read(text);
    expect([seen.length, left]).toEqual([1, { "INSERT (on a hidden layer)": 1, "CIRCLE (on a hidden layer)": 1 }]);
  });
  it("that are not there, or hold themselves, are counted; too many are refused", () => {
    const own = block("Own", [0, 0], ...circle(0, 0, 1), ...insert("Own", 3, 0));
    const { curves, left } = read(drawing([own], ...insert("Own", 0, 0), ...insert("Nothing", 0, 0)));
    expect(curves.length).toBeLessThan(20);
    expect(left["INSERT"]).toBe(2);
    const many = drawing(
      [block("C", [0, 0], ...circle(0, 0, 1))],
      ...insert("C", 0, 0, 70, 30_000, 71, 30_000, 44, 3, 45, 3),
    );
    const r = readDxf(many, idsFor(empty));
    expect(r.ok || r.refusal.code).toBe("too-large");
  });
});
