import fc from "fast-check";
import { expect, it } from "vitest";
import { apart, LABEL } from "./apart";

it("labels never cover each other, wherever their points stand, and stay in order", () => {
  const place = fc.tuple(fc.double({ min: 0, max: 300, noNaN: true }), fc.double({ min: 0, max: 200, noNaN: true }));
  fc.assert(
    fc.property(fc.array(place, { maxLength: 8 }), (points) => {
      const places = apart(points);
      expect(places).toHaveLength(points.length);
      places.forEach((p, i) =>
        places.slice(i + 1).forEach((q) => {
          const clear = Math.abs(p[0] - q[0]) >= LABEL.width || Math.abs(p[1] - q[1]) >= LABEL.height - 1e-9;
          expect(clear).toBe(true);
        }),
      );
    }),
  );
  expect(apart([[10, 50]])).toEqual([[36, 24]]);
});
