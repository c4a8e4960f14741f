import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DATUM_FRAMES, normalOf, offsetFrame, toPlane, toSpace } from "./frame";
import { determinant, IDENTITY, move, rotationBetween, snapRows, turn } from "./rigid";
import { cross3, dot3, length3, unit3, type Vec3 } from "./vector";

describe("datum frames", () => {
  it.each([
    ["front", [0, -1, 0]],
    ["top", [0, 0, 1]],
    ["right", [1, 0, 0]],
  ] as const)("the normal of %s points to its viewer", (plane, normal) => {
    normalOf(DATUM_FRAMES[plane]).forEach((v, i) => expect(v).toBeCloseTo(normal[i]!, 15));
  });
  it("go to space and back", () => {
    const number = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(fc.constantFrom("front", "top", "right"), number, number, number, (plane, x, y, offset) => {
        const frame = offsetFrame(DATUM_FRAMES[plane as "front"], offset);
        const back = toPlane(frame, toSpace(frame, [x, y]));
        expect(back[0]).toBeCloseTo(x, 10);
        expect(back[1]).toBeCloseTo(y, 10);
      }),
    );
  });
  it("an offset lifts along the normal", () => {
    expect(toSpace(offsetFrame(DATUM_FRAMES.front, 5), [1, 2])).toEqual([1, -5, 2]);
    expect(toSpace(DATUM_FRAMES.front, [1, 2], 5)).toEqual([1, -5, 2]);
  });
});

describe("rotations", () => {
  const triad = (a: Vec3, b: Vec3): [Vec3, Vec3, Vec3] => {
    const x = unit3(a);
    const z = unit3(cross3(x, b));
    return [x, cross3(z, x), z];
  };

  it("between right-handed triads take one to the other and keep lengths", () => {
    const from = triad([1, 2, 3], [0, 1, 0]);
    const to = triad([-2, 1, 0.5], [1, 1, 1]);
    const rows = rotationBetween(from, to);
    expect(determinant(rows)).toBeCloseTo(1, 12);
    from.forEach((v, i) =>
      turn({ rows, shift: [0, 0, 0] }, v).forEach((c, k) => expect(c).toBeCloseTo(to[i]![k]!, 12)),
    );
    expect(length3(turn({ rows, shift: [0, 0, 0] }, [3, 4, 12]))).toBeCloseTo(13, 12);
  });
  it("between triads of other hands mirror", () => {
    const [x, y, z] = triad([1, 0, 0], [0, 1, 0]);
    expect(determinant(rotationBetween([x, y, z], [x, y, [-z[0], -z[1], -z[2]]]))).toBeCloseTo(-1, 12);
  });
  it("a hair beside the axes are put on them, others stay", () => {
    const rows = snapRows([
      [1 - 1e-12, 1e-11, 0],
      [-1e-11, 1, 0],
      [0, 0, 1],
    ]);
    expect(rows).toEqual(IDENTITY.rows);
    const slanted: Vec3 = unit3([1, 1, 0]);
    expect(snapRows([slanted, [0, 1, 0], [0, 0, 1]])[0]).toEqual(slanted);
  });
  it("moving turns first and shifts after", () => {
    const quarter = {
      rows: [
        [0, -1, 0],
        [1, 0, 0],
        [0, 0, 1],
      ] as const,
      shift: [10, 0, 0] as const,
    };
    expect(move(quarter, [1, 0, 0])).toEqual([10, 1, 0]);
    expect(dot3([1, 2, 3], [4, 5, 6])).toBe(32);
  });
});
