import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { add3, cross3, dot3, length3, scale3, unit3, type Vec3 } from "@/core/geometry/vector";
import { distanceTo, normalAt, type Carrier } from "./carrier";

const axis = unit3([1, 2, 2]),
  side = unit3(cross3(axis, [0, 0, 1])),
  up = cross3(axis, side),
  at: Vec3 = [3, -4, 5];
const around = (t: number): Vec3 => add3(scale3(side, Math.cos(t)), scale3(up, Math.sin(t)));
/** Carriers with a point on each by two parameters. */
const ROUND: [string, Carrier, (t: number, u: number) => Vec3][] = [
  [
    "plane",
    { kind: "plane", normal: axis, offset: dot3(axis, at) },
    (t, u) => add3(at, add3(scale3(side, 10 * t), scale3(up, 10 * u))),
  ],
  [
    "cylinder",
    { kind: "cylinder", at, axis, radius: 4, hollow: false },
    (t, u) => add3(at, add3(scale3(around(t), 4), scale3(axis, 10 * u))),
  ],
  [
    "cone",
    { kind: "cone", tip: at, axis, half: 0.4, hollow: false },
    (t, u) => add3(at, add3(scale3(axis, 2 + u), scale3(around(t), (2 + u) * Math.tan(0.4)))),
  ],
  [
    "ball",
    { kind: "sphere", centre: at, radius: 6, hollow: false },
    (t, u) => add3(at, add3(scale3(around(t), 6 * Math.cos(u)), scale3(axis, 6 * Math.sin(u)))),
  ],
  [
    "ring",
    { kind: "torus", centre: at, axis, major: 9, minor: 2, hollow: false },
    (t, u) => add3(at, add3(scale3(around(t), 9 + 2 * Math.cos(u)), scale3(axis, 2 * Math.sin(u)))),
  ],
];

describe("normals of carriers", () => {
  it.each(ROUND)("%s: unit, square to the surface, out of the material", (_, carrier, place) => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.2, noNaN: true }),
        fc.double({ min: 0.1, max: 1.3, noNaN: true }),
        (t, u) => {
          const p = place(t, u),
            n = normalAt(carrier, p)!,
            h = 1e-4;
          expect(distanceTo(carrier, p)).toBeLessThan(1e-9);
          expect(length3(n)).toBeCloseTo(1, 9);
          // a step along it is a step away from the surface
          expect(distanceTo(carrier, add3(p, scale3(n, h)))).toBeCloseTo(h, 9);
          const along = add3(place(t + h, u), scale3(place(t - h, u), -1));
          expect(Math.abs(dot3(n, along))).toBeLessThan(1e-9 + 1e-6 * length3(along));
          if (carrier.kind !== "plane" && carrier.kind !== "other")
            expect(dot3(n, normalAt({ ...carrier, hollow: true }, p)!)).toBeCloseTo(-1, 9);
        },
      ),
    );
  });
  it("there is none where the surface has no side: on an axis, at a centre, on a free form", () => {
    expect(normalAt(ROUND[1]![1], at)).toBeUndefined();
    expect(normalAt(ROUND[3]![1], at)).toBeUndefined();
    expect(normalAt({ kind: "other", type: "spline" }, at)).toBeUndefined();
  });
});
