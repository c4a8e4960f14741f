import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { segmentAt, segmentLength } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { idsFor } from "@/core/sketch/edit/rewire";
import { findRegions } from "@/core/sketch/regions";
import { emptySketch, SketchSchema, type Curve, type Sketch } from "@/core/sketch/sketch";
import { readDxf } from "./dxf-read";
import { writeDxf } from "./dxf-write";
import { sketchSvg } from "./sketch-svg";

const empty = emptySketch("top");
const read = (text: string) => {
  const r = readDxf(text, idsFor(empty));
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
const CURVES: Curve[] = [
  { id: "p1", kind: "point", at: [3, 4] },
  { id: "l1", kind: "line", start: [0, 0], end: [10, 2] },
  { id: "c1", kind: "circle", centre: [5, 5], radius: 3 },
  { id: "a1", kind: "arc", centre: [0, 0], start: [0, 10], end: [-10, 0] },
  { id: "e1", kind: "ellipse", centre: [1, 2], major: [9, 2], minor: [1, 7] },
  { id: "e2", kind: "ellipse-arc", centre: [1, 2], major: [5, 2], minor: [1, 10], start: [5, 2], end: [1, 10] },
  {
    id: "s1",
    kind: "spline",
    through: [
      [0, 0],
      [10, 5],
      [20, 0],
      [25, 8],
    ],
    knots: [0, 1, 2.5, 3],
  },
];
const sketch: Sketch = { ...empty, curves: CURVES };
const pairs = (...rows: (string | number)[]) => `${rows.join("\n")}\n`;
const wrapped = (...rows: (string | number)[]) => pairs(0, "SECTION", 2, "ENTITIES", ...rows, 0, "ENDSEC", 0, "EOF");

describe("DXF out and in again", () => {
  it("2000 keeps every kind and shape", () => {
    const back = read(writeDxf(sketch, "2000"));
    expect(back.left).toEqual({});
    expect(back.curves.map((c) => c.kind)).toEqual(CURVES.map((c) => c.kind));
    back.curves.forEach((c, i) => {
      const a = segmentOf(CURVES[i]!),
        b = segmentOf(c);
      if (!a || !b) return;
      expect(segmentLength(b)).toBeCloseTo(segmentLength(a), 5);
      if (c.kind !== "circle" && c.kind !== "ellipse")
        for (const t of [0, 1])
          expect(
            Math.hypot(segmentAt(a, t)[0] - segmentAt(b, t)[0], segmentAt(a, t)[1] - segmentAt(b, t)[1]),
          ).toBeLessThan(1e-9);
    });
  });
  it("R12 turns ellipses and splines into fine polylines", () => {
    const back = read(writeDxf(sketch, "R12"));
    expect(back.left).toEqual({});
    expect(back.curves.filter((c) => c.kind === "line").length).toBeGreaterThan(300);
  });
});

describe("DXF in", () => {
  it("a closed polyline with bulges is a slot of known area", () => {
    const { curves, constraints } = read(
      wrapped(
        0,
        "LWPOLYLINE",
        90,
        4,
        70,
        1,
        10,
        0,
        20,
        -5,
        42,
        0,
        10,
        20,
        20,
        -5,
        42,
        1,
        10,
        20,
        20,
        5,
        42,
        0,
        10,
        0,
        20,
        5,
        42,
        1,
      ),
    );
    expect(curves.map((c) => c.kind)).toEqual(["line", "arc", "line", "arc"]);
    expect(constraints).toHaveLength(4);
    const { regions } = findRegions({ ...empty, curves, constraints });
    expect(regions[0]!.area).toBeCloseTo(200 + Math.PI * 25, 9);
  });
  it("an old polyline takes its vertices", () => {
    expect(
      read(
        wrapped(
          0,
          "POLYLINE",
          66,
          1,
          70,
          0,
          0,
          "VERTEX",
          10,
          0,
          20,
          0,
          0,
          "VERTEX",
          10,
          4,
          20,
          0,
          42,
          -1,
          0,
          "VERTEX",
          10,
          4,
          20,
          6,
          0,
          "SEQEND",
          0,
          "POINT",
          10,
          1,
          20,
          1,
        ),
      ).curves.map((c) => c.kind),
    ).toEqual(["line", "arc", "point"]);
  });
  it("units are those of the file", () => {
    const inches =
      pairs(0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, 1, 0, "ENDSEC") +
      wrapped(0, "CIRCLE", 10, 1, 20, 0, 40, 0.5);
    expect(read(inches)).toMatchObject({ unit: "in", curves: [{ radius: 12.7, centre: [25.4, 0] }] });
  });
  it("counts what it could not take", () => {
    expect(
      read(
        wrapped(
          0,
          "LINE",
          10,
          0,
          20,
          0,
          11,
          1,
          21,
          1,
          0,
          "TEXT",
          1,
          "note",
          0,
          "TEXT",
          1,
          "more",
          0,
          "HATCH",
          2,
          "x",
          0,
          "CIRCLE",
          10,
          0,
          20,
          0,
          40,
          -1,
        ),
      ).left,
    ).toEqual({ TEXT: 2, HATCH: 1, CIRCLE: 1 });
  });
  it.each([
    ["nothing", ""],
    ["a letter", "Dear all,\nthis is no drawing"],
    ["no entities", pairs(0, "SECTION", 2, "HEADER", 0, "ENDSEC")],
    ["nothing to take", wrapped(0, "TEXT", 1, "note")],
  ])("%s is refused with a sentence", (_, text) => {
    const r = readDxf(text, idsFor(empty));
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.refusal.sentence).toMatch(/\.$/);
  });
  it("whatever is thrown at it ends in a sketch that can be stored, or a refusal", () => {
    const whole = writeDxf(sketch, "2000").split("\r\n");
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.nat(whole.length - 1),
            fc.oneof(fc.string(), fc.constantFrom("NaN", "1e999", "-5", "0", "LINE", "SPLINE", "10")),
          ),
          { maxLength: 12 },
        ),
        (edits) => {
          const rows = [...whole];
          for (const [i, text] of edits) rows[i] = text;
          const r = readDxf(rows.join("\n"), idsFor(empty));
          if (r.ok)
            expect(
              SketchSchema.safeParse({ ...empty, curves: r.value.curves, constraints: r.value.constraints }).success,
            ).toBe(true);
        },
      ),
      { numRuns: process.env["CALIPER_LONG"] ? 2000 : 150, seed: 5 },
    );
  });
});

describe("SVG out", () => {
  it("holds one path a curve and its true size", () => {
    const svg = sketchSvg(sketch);
    expect(svg.match(/<path/g)).toHaveLength(6);
    expect(svg).toContain('id="s1"');
    expect(svg).toMatch(/width="[\d.]+mm"/);
    expect(svg).not.toContain("NaN");
  });
});
