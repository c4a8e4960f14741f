import fc from "fast-check";
import { expect, it } from "vitest";
import { massAsLettered, massText, MASS_UNITS } from "./amounts";

it.each([
  [432.98765, undefined, "432.99 g"],
  [12_345.678, undefined, "12.346 kg"],
  [453.59237, "lb", "1 lb"],
  [28.349523125, "oz", "1 oz"],
] as const)("%d g as %s is %s", (g, unit, text) =>
  expect(
    massText(g, unit)
      .replace(/\.?0+ /, " ")
      .replace(/\u202f/g, ""),
  ).toBe(text),
);

it("the mass as lettered reads the same and holds nothing more", () =>
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 1e6, noNaN: true }),
      fc.option(fc.constantFrom(...MASS_UNITS), { nil: undefined }),
      (g, unit) => {
        const lettered = massAsLettered(g, unit);
        expect(massText(lettered, unit)).toBe(massText(g, unit));
        expect(massAsLettered(lettered, unit)).toBeCloseTo(lettered, 9);
      },
    ),
  ));
