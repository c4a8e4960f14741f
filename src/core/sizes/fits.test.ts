import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { limitsOf } from "./fits";

/** Printed limits of ISO 286-2, µm: upper, lower. */
const KNOWN: readonly [number, string, number, number][] = [
  [25, "H7", 21, 0],
  [20, "g6", -7, -20],
  [20, "k6", 15, 2],
  [20, "K7", 6, -15],
  [20, "P7", -14, -35],
  [20, "N9", 0, -52],
  [40, "h9", 0, -62],
  [40, "f7", -25, -50],
  [12, "H8", 27, 0],
  [12, "js6", 5.5, -5.5],
  [5, "JS9", 15, -15],
  [60, "n6", 39, 20],
  [60, "N7", -9, -39],
  [100, "p6", 59, 37],
  [2, "K6", 0, -6],
  [8, "E8", 47, 25],
  [150, "d10", -145, -305],
];

describe("limits of ISO 286", () => {
  it.each(KNOWN)("of %d %s are %d and %d µm", (nominal, fit, upper, lower) => {
    const r = limitsOf(nominal, fit);
    expect(r.ok && [r.value.upper * 1000, r.value.lower * 1000].map((v) => Math.round(v * 10) / 10 + 0)).toEqual([
      upper,
      lower,
    ]);
  });
  it("lie as far apart for a hole as for a shaft of the same grade", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 500, noNaN: true }),
        fc.constantFrom("d", "e", "f", "g", "h", "js", "k", "m", "n", "p"),
        fc.integer({ min: 6, max: 12 }),
        (nominal, letter, grade) => {
          const [shaft, hole] = [letter, letter.toUpperCase()].map((l) => limitsOf(nominal, `${l}${grade}`));
          if (!shaft?.ok || !hole?.ok) throw new Error("a class that is known");
          const width = (l: { upper: number; lower: number }) => l.upper - l.lower;
          expect(width(shaft.value)).toBeCloseTo(width(hole.value), 9);
        },
      ),
    );
  });
  it.each([
    [20, "Q7"],
    [20, "H99"],
    [900, "H7"],
    [20, "seven"],
  ])("of %d %s are refused in a sentence", (nominal, fit) => {
    const r = limitsOf(nominal, fit);
    expect(r.ok || r.refusal.sentence).toMatch(/is not known/);
  });
});
