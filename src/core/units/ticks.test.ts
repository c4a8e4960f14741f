import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { countTicks, roundTicks, roundWidth } from "./ticks";

describe("ticks of a chart", () => {
  it.each([
    [0, 10, [0, 5, 10]],
    [338.2, 351, [340, 345, 350]],
    [0.11, 0.19, [0.12, 0.14, 0.16, 0.18]],
    [5, 5, [5]],
  ])("from %d to %d stand at round values", (a, b, ticks) => expect(roundTicks(a, b)).toEqual(ticks));
  it.each([
    [1, [0, 1]],
    [4, [0, 1, 2, 3, 4]],
    [6, [0, 2, 4, 6]],
    [7, [0, 2, 4, 6, 8]],
    [30, [0, 10, 20, 30]],
    [300, [0, 100, 200, 300]],
  ])("of %d things are whole and reach all of them", (n, ticks) => expect(countTicks(n)).toEqual(ticks));
  it.each([
    [25, 10, 5],
    [10, 10, 1],
    [27, 10, 5],
    [1000, 10, 100],
  ])("%d in at most %d classes are %d wide", (all, most, width) => expect(roundWidth(all, most)).toBe(width));
  it("lie within their ends, rise, and are few", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: 1e-3, max: 1e6, noNaN: true }),
        (from, reach) => {
          const ticks = roundTicks(from, from + reach);
          expect(ticks.length).toBeLessThanOrEqual(6);
          ticks.forEach((t, i) => {
            expect(t).toBeGreaterThanOrEqual(from - 1e-6 * reach - 1e-9 * Math.abs(from));
            expect(t).toBeLessThanOrEqual(from + reach * (1 + 1e-6) + 1e-9 * Math.abs(from));
            if (i) expect(t).toBeGreaterThan(ticks[i - 1]!);
          });
        },
      ),
    );
  });
});
