import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lengthText, plainNumber, readQuantity } from "./quantity";

const mm = (text: string, unit: "mm" | "in" = "mm") => {
  const r = readQuantity(text, "length", unit);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};

describe("readQuantity", () => {
  it.each([
    ["12", "mm", 12],
    ["12 mm", "in", 12],
    ["2 5/8 in", "mm", 66.675],
    ["2 5/8", "in", 66.675],
    ["5/8", "in", 15.875],
    ["5/8 in", "mm", 15.875],
    ["=1 in - 1/4 in", "mm", 19.05],
    ["=(94-31)/2", "mm", 31.5],
    ["=(94 mm - 1 in)/2", "mm", 34.3],
    ["1 in + 1", "mm", 26.4],
    ["3*4", "mm", 12],
    ["2^3", "mm", 8],
    ["-(2+3)*2", "mm", -10],
    ["1,5", "mm", 1.5],
    [".5 cm", "mm", 5],
    ["1'", "mm", 304.8],
    ["4 mm * 6 mm / 2 mm", "in", 12],
  ] as const)("%s in %s is %d mm", (text, unit, want) => expect(mm(text, unit)).toBeCloseTo(want, 12));

  it("reads angles in degrees", () => {
    const r = readQuantity("90", "angle", "mm");
    expect(r.ok && r.value).toBeCloseTo(Math.PI / 2, 14);
  });

  it.each([
    "",
    "abc",
    "12 furlong",
    "1/0",
    "3 0/0",
    "(1+2",
    "1 2",
    "4 mm * 4 mm",
    "30 deg",
    "1e400",
    "12 mm + 3 deg",
    "$",
  ])("refuses “%s” with a sentence", (text) => {
    const r = readQuantity(text, "length", "mm");
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.refusal.sentence).toMatch(/\.$/);
  });

  it("never throws and never gives a number that is none", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (s) => {
        const r = readQuantity(s, "length", "in");
        if (r.ok) expect(Number.isFinite(r.value)).toBe(true);
      }),
    );
  });

  it("reads back what lengthText prints", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999_000 }), (n) => {
        expect(mm(lengthText(n / 1000, "mm").replace(/\u202f/g, ""))).toBeCloseTo(n / 1000, 9);
      }),
    );
  });
});

it("plainNumber groups thousands and drops trailing zeros", () => {
  expect(plainNumber(65921.4, 2)).toBe("65\u202f921.4");
  expect(plainNumber(-0.0001, 2)).toBe("0");
  expect(plainNumber(100, 0)).toBe("100");
});
