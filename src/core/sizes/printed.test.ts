import { describe, expect, it } from "vitest";
import { readQuantity } from "@/core/units/quantity";
import { AS_PRINTED, classNamed } from "./general";
import { asLettered, letteredLength } from "./lettering";
import { isAsPrinted, printedNumbers } from "./printed";
import type { Size } from "./size";

const sixtyFourths = Array.from({ length: 64 * 6 }, (_, i) => i + 1);

describe("what is lettered and what is read back", () => {
  it.each([0, 1, 2, 3, 4, 5])("agree for every sixty-fourth of an inch at %d places", (digits) => {
    const apart = sixtyFourths.filter((n) => {
      const mm = (n / 64) * 25.4,
        text = letteredLength(mm, { unit: "in", digits }),
        read = readQuantity(text.startsWith(".") ? `0${text}` : text, "length", "in");
      return !read.ok || Math.abs(read.value - asLettered(mm, "length", { unit: "in", digits })) > 1e-9;
    });
    expect(apart).toEqual([]);
  });
  it("agree as fractions", () => {
    const l = { unit: "in", fractions: true } as const;
    for (const n of sixtyFourths) {
      const mm = (n / 64) * 25.4,
        read = readQuantity(letteredLength(mm, l), "length", "in");
      expect(read.ok && read.value).toBeCloseTo(mm, 9);
      expect(asLettered(mm, "length", l)).toBeCloseTo(mm, 9);
    }
    // what is no sixty-fourth is lettered with decimals, and read back as those
    expect(letteredLength(8.3, l)).toBe(".3268");
    expect(asLettered(8.3, "length", l)).toBeCloseTo(0.3268 * 25.4, 12);
  });
  it("a half is rounded away from nought whatever the unit did to it", () => {
    for (const n of [1, 3, 5, 7, 9, 11]) {
      const mm = (n / 8) * 25.4;
      expect(letteredLength(mm, { unit: "in", digits: 2 }).replace(/^\./, "0.")).toBe(
        String(Math.round((n / 8) * 100 + 1e-9) / 100),
      );
    }
    expect([letteredLength(2.5, { unit: "mm", digits: 0 }), letteredLength(-2.5, { unit: "mm", digits: 0 })]).toEqual([
      "3",
      "-3",
    ]);
  });
});

describe("a printed number", () => {
  const of = (size: Partial<Size>, value: number) =>
    printedNumbers(
      { id: "s", kind: "diameter", of: ["f"], ...size } as Size,
      [{ what: "diameter", quantity: "length", value }],
      { unit: "mm" },
      AS_PRINTED,
      50,
    )[0]!;
  it("is what is lettered, and what was rounded away is nobody's fault", () => {
    const printed = of({ lettering: { digits: 1 } }, 20.346);
    expect([printed.nominal, printed.text]).toEqual([20.3, "20.3"]);
    expect([20.3, 20.346, 20.32].map((v) => isAsPrinted(printed, v))).toEqual([true, true, true]);
    expect([20.22, 20.4].map((v) => isAsPrinted(printed, v))).toEqual([false, false]);
  });
  it("with a fit goes by the limits of the fit", () => {
    const hole = of({ lettering: { fit: "H7" } }, 20);
    expect([20, 20.021, 20.01, 19.999, 20.03].map((v) => isAsPrinted(hole, v))).toEqual([
      true,
      true,
      true,
      false,
      false,
    ]);
    const shaft = of({ lettering: { fit: "f7" } }, 20);
    expect([20, 19.98, 19.97, 19.95].map((v) => isAsPrinted(shaft, v))).toEqual([false, true, true, false]);
  });
  it("with a tolerance of its own goes by that", () => {
    const own = of({ tolerance: { plus: 0.1, minus: 0 } }, 20);
    expect([20, 20.1, 19.99].map((v) => isAsPrinted(own, v))).toEqual([true, true, false]);
  });
});

it.each([
  ["ISO 2768-m", "m"],
  ["General tolerances ISO 2768-mK. Break all edges.", "m"],
  ["ISO 2768 – 1 – c", "c"],
  ["ISO2768f", "f"],
  ["ISO 2768-medium", undefined],
  ["DIN 7168", undefined],
  ["", undefined],
])("the words “%s” name the class %s", (words, named) =>
  expect(classNamed(words)).toEqual(named && { by: "iso", class: named }),
);
