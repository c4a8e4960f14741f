import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { idsFor } from "@/core/sketch/edit/rewire";
import { findRegions } from "@/core/sketch/regions";
import { SketchSchema } from "@/core/sketch/sketch";
import { readDxf } from "./dxf-read";
import { writeDxf } from "./dxf-write";

import { empty, read, sketch, pairs, wrapped } from "./testing/dxf-text";
import { IS_LONG } from "@/core/part/testing/chosen";

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
      { numRuns: IS_LONG ? 2000 : 150, seed: 5 },
    );
  });
});
