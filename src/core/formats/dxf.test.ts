import { describe, expect, it } from "vitest";
import { segmentAt, segmentLength } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { idsFor } from "@/core/sketch/edit/rewire";
import { type Curve } from "@/core/sketch/sketch";
import { importNotice, readDxf } from "./dxf-read";
import { writeDxf } from "./dxf-write";

import { CURVES, empty, read, sketch, pairs, wrapped } from "./testing/dxf-text";

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

describe("construction and centre lines", () => {
  it("come back as what they were", () => {
    const kinds = [undefined, true, "centre-line"] as const;
    const curves = kinds.map((construction, i): Curve => ({
      id: `l${i}`,
      kind: "line",
      start: [0, i],
      end: [10, i],
      ...(construction && { construction }),
    }));
    for (const version of ["R12", "2000"] as const)
      expect(read(writeDxf({ curves }, version)).curves.map((c) => c.construction)).toEqual([...kinds]);
  });
});

/** Coordinates of the points where things begin and end, rounded. */
const ends = (c: Curve) => {
  const s = segmentOf(c)!;
  return [segmentAt(s, 0), segmentAt(s, 0.5), segmentAt(s, 1)].map((p) => p.map((v) => Number(v.toFixed(6)) + 0));
};

describe("what is no geometry of the drawing", () => {
  const line = (...more: (string | number)[]) => [0, "LINE", ...more, 10, 0, 20, 0, 11, 5, 21, 0];
  const layer = (name: string, flags: number, colour: number) => [0, "LAYER", 2, name, 70, flags, 62, colour];
  it("paper space, the invisible, and layers frozen or off are left out and counted", () => {
    const tables = pairs(
      ...[0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER"],
      ...[...layer("COLD", 1, 7), ...layer("OFF", 0, -7), ...layer("ON", 0, 7), 0, "ENDTAB", 0, "ENDSEC"],
    );
    const { curves, left } = read(
      tables +
        wrapped(
          ...[...line(67, 1), ...line(60, 1), ...line(8, "COLD"), ...line(8, "OFF"), ...line(8, "ON"), ...line()],
        ),
    );
    expect(curves).toHaveLength(2);
    expect(left).toEqual({ "LINE (on the layout)": 1, "LINE (invisible)": 1, "LINE (on a hidden layer)": 2 });
  });
  it("heights are told; what slants is not flattened", () => {
    const r = read(
      wrapped(
        ...[0, "LINE", 10, 0, 20, 0, 30, 4, 11, 5, 21, 0, 31, 4],
        ...[0, "LINE", 10, 0, 20, 0, 30, 0, 11, 5, 21, 0, 31, 4],
        ...[0, "CIRCLE", 10, 0, 20, 0, 30, 2, 40, 3],
        ...line(),
      ),
    );
    expect([r.curves.length, r.raised, r.left]).toEqual([3, 2, { "LINE (slanting)": 1 }]);
    expect(importNotice(r)).toBe(
      "Not taken: 1 × LINE (slanting). 2 curves lay above or below the drawing plane and were put into it.",
    );
  });
});

describe("entities seen from below", () => {
  it("an arc, a circle and a polyline change sides", () => {
    const [arc, circle, bulge] = read(
      wrapped(
        ...[0, "ARC", 10, 10, 20, 0, 40, 5, 50, 0, 51, 90, 230, -1],
        ...[0, "CIRCLE", 10, 3, 20, 4, 40, 1, 230, -1],
        ...[0, "LWPOLYLINE", 90, 2, 70, 0, 10, 0, 20, 0, 42, 1, 10, 10, 20, 0, 230, -1],
      ),
    ).curves as [Curve, Curve, Curve];
    // from (15, 0) over 45° to (10, 5) about (10, 0), x turned over
    expect(ends(arc).sort()).toEqual([
      [-10, 5],
      [-13.535534, 3.535534],
      [-15, 0],
    ]);
    expect(circle).toMatchObject({ centre: [-3, 4], radius: 1 });
    // a half turn below the chord stays below it
    expect(ends(bulge)[1]).toEqual([-5, -5]);
  });
  it("a direction askew is left out", () =>
    expect(read(wrapped(0, "CIRCLE", 10, 0, 20, 0, 40, 1, 210, 1, 230, 0, 0, "POINT", 10, 1, 20, 1)).left).toEqual({
      "CIRCLE (out of the drawing plane)": 1,
    }));
});

it.each([
  [0, 360],
  [90, 450],
  [30, 30],
])("an arc from %d to %d is a circle", (from, to) =>
  expect(read(wrapped(0, "ARC", 10, 1, 20, 2, 40, 3, 50, from, 51, to)).curves).toMatchObject([
    { kind: "circle", centre: [1, 2], radius: 3 },
  ]),
);

describe("units of the file", () => {
  const inUnit = (code: number) =>
    readDxf(
      pairs(0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, code, 0, "ENDSEC") + wrapped(0, "POINT", 10, 2, 20, 0),
      idsFor(empty),
    );
  const SIZES = [25.4, 304.8, 1609344, 1, 10, 1000, 1e6, 2.54e-5, 0.0254, 914.4, 1e-7, 1e-6, 1e-3, 100, 1e4, 1e5];
  it.each(SIZES.map((mm, i) => [i + 1, mm] as const))("number %d is %d mm", (code, mm) => {
    const r = inUnit(code);
    if (2 * mm > 1e6) return expect(r.ok).toBe(false);
    expect(r.ok && (r.value.curves[0] as { at: number[] }).at[0]).toBeCloseTo(2 * mm, 9);
  });
  it.each([
    [17, /gigametres/],
    [18, /astronomical units/],
    [19, /light years/],
    [20, /parsecs/],
    [42, /unit number 42/],
  ])("number %d is refused by name", (code, name) => {
    const r = inUnit(code);
    expect(!r.ok && r.refusal.sentence).toMatch(name);
  });
});

describe("splines", () => {
  const spline = (degree: number, knots: number[], poles: number[][], weights: number[] = []) =>
    wrapped(
      ...[0, "SPLINE", 70, 8, 71, degree, 72, knots.length, 73, poles.length],
      ...knots.flatMap((k) => [40, k]),
      ...weights.flatMap((w) => [41, w]),
      ...poles.flatMap(([x, y]) => [10, x!, 20, y!]),
    );
  it("a quadratic one comes in exactly", () => {
    const [c] = read(
      spline(
        2,
        [0, 0, 0, 1, 1, 1],
        [
          [0, 0],
          [5, 10],
          [10, 0],
        ],
      ),
    ).curves;
    expect(ends(c!)).toEqual([
      [0, 0],
      [5, 5],
      [10, 0],
    ]);
  });
  it("a quadratic one of two spans in two pieces that meet", () => {
    const r = read(
      spline(
        2,
        [0, 0, 0, 1, 2, 2, 2],
        [
          [0, 0],
          [0, 4],
          [8, 4],
          [8, 0],
        ],
      ),
    );
    expect(r.curves.map((c) => c.kind)).toEqual(["spline", "spline"]);
    expect(ends(r.curves[0]!)[2]).toEqual([4, 4]);
    expect(r.constraints).toHaveLength(1);
  });
  it("a rational quarter is an arc, a squeezed one an ellipse, a hyperbola is left out", () => {
    const quarter = (h: number, w: number) =>
      spline(
        2,
        [0, 0, 0, 1, 1, 1],
        [
          [10, 0],
          [10, h],
          [0, h],
        ],
        [1, w, 1],
      );
    const [arc] = read(quarter(10, Math.SQRT1_2)).curves;
    expect(arc).toMatchObject({ kind: "arc" });
    expect(segmentLength(segmentOf(arc!)!)).toBeCloseTo(5 * Math.PI, 9);
    const [ellipse] = read(quarter(6, Math.SQRT1_2)).curves;
    expect(ellipse).toMatchObject({ kind: "ellipse-arc" });
    const half = ends(ellipse!)[1]!;
    expect((half[0]! / 10) ** 2 + (half[1]! / 6) ** 2).toBeCloseTo(1, 6);
    expect(readDxf(quarter(10, 2), idsFor(empty)).ok).toBe(false);
  });
  it("a cubic one with a kink comes in pieces", () => {
    const poles = [
      [0, 0],
      [1, 2],
      [3, 2],
      [4, 0],
      [5, 2],
      [7, 2],
      [8, 0],
    ];
    const r = read(spline(3, [0, 0, 0, 0, 1, 1, 1, 2, 2, 2, 2], poles));
    expect(r.curves).toHaveLength(2);
    expect(ends(r.curves[1]!)).toEqual([
      [4, 0],
      [6, 1.5],
      [8, 0],
    ]);
  });
});
