import fc from "fast-check";
import { expect, it } from "vitest";
import { facetBody } from "./facet-body";

/** A cube as a mesh file holds one: each facet with corners of its own. */
const CUBE = [
  [0, 2, 1], [1, 2, 3], [4, 5, 6], [5, 7, 6], [0, 1, 4], [1, 5, 4],
  [2, 6, 3], [3, 6, 7], [0, 4, 2], [2, 4, 6], [1, 3, 5], [3, 7, 5],
] as const; // prettier-ignore

it("corners that differ by 2e-11 are one, also where they lie on a line of a grid", () => {
  // of a cube of side s the grid that told corners apart had lines at (n + 1/2) · 2e-7 s
  const place = fc.tuple(fc.integer({ min: 0, max: 4_000_000 }), fc.constantFrom(1, 10, 100));
  const noise = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 108, maxLength: 108 });
  fc.assert(
    fc.property(place, noise, ([line, side], off) => {
      const from = (line + 0.5) * side * 2e-7;
      const positions = CUBE.flat().flatMap((corner, i) =>
        [corner & 1, (corner >> 1) & 1, corner >> 2].map((bit, axis) => from + bit * side + off[3 * i + axis]! * 2e-11),
      );
      const body = facetBody({
        positions: Float64Array.from(positions),
        triangles: Uint32Array.from({ length: 36 }, (_, i) => i),
      });
      expect(body.ok || body.refusal.sentence).toBe(true);
      if (body.ok) expect(body.value.properties.volume).toBeCloseTo(side ** 3, 3);
    }),
  );
});

it("a facet that is missing is told", () => {
  const positions = CUBE.flat().flatMap((corner) => [corner & 1, (corner >> 1) & 1, corner >> 2]);
  const triangles = Uint32Array.from({ length: 33 }, (_, i) => i);
  const open = facetBody({ positions: Float64Array.from(positions), triangles });
  expect(open.ok || open.refusal.sentence).toMatch(/^The mesh is not closed: at 3 sides/);
});
