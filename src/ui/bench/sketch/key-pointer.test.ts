import fc from "fast-check";
import { expect, it } from "vitest";
import { keyStep } from "./key-pointer";

it("a step of the keyboard pointer is one, two or five of a decimal place, and about as wide as a line", () =>
  fc.assert(
    fc.property(
      fc.double({ min: 1e-4, max: 100, noNaN: true }),
      fc.constantFrom("mm" as const, "in" as const),
      (pixel, unit) => {
        const step = keyStep(pixel, unit) / (unit === "in" ? 25.4 : 1);
        const lead = step / 10 ** Math.floor(Math.log10(step) + 1e-9);
        expect([1, 2, 5].some((n) => Math.abs(lead - n) < 1e-6)).toBe(true);
        const pixels = keyStep(pixel, unit) / pixel;
        expect(pixels).toBeGreaterThanOrEqual(8 - 1e-9);
        expect(pixels).toBeLessThanOrEqual(20 + 1e-9);
      },
    ),
  ));
