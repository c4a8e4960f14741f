import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import type { Rigid } from "@/core/geometry/rigid";
import { distance3, dot3, unit3, type Vec3 } from "@/core/geometry/vector";
import { facesOf, type Carrier, type Face } from "@/core/kernel/faces";
import { rebuild } from "@/core/part/rebuild";
import { tripodFoot, vaneArm } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { movedFace, transformedFace } from "./match";
import { placeOn } from "./placement";
import { IS_LONG } from "@/core/part/testing/chosen";

const parts: Record<string, Face[]> = {};
beforeAll(async () => {
  const kernel = await openNodeKernel();
  for (const [name, d] of Object.entries({ foot: tripodFoot(), arm: vaneArm() }))
    parts[name] = facesOf(kernel, rebuild(kernel, d).body!);
});

/** Rotation by a unit quaternion. */
function rotation([w, x, y, z]: readonly [number, number, number, number]): Rigid["rows"] {
  return [
    [1 - 2 * (y * y + z * z), 2 * (x * y - w * z), 2 * (x * z + w * y)],
    [2 * (x * y + w * z), 1 - 2 * (x * x + z * z), 2 * (y * z - w * x)],
    [2 * (x * z - w * y), 2 * (y * z + w * x), 1 - 2 * (x * x + y * y)],
  ];
}
const quaternion = fc
  .tuple(...[0, 1, 2, 3].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
  .filter((q) => Math.hypot(...q) > 0.2)
  .map((q) => q.map((v) => v / Math.hypot(...q)) as unknown as [number, number, number, number]);
const shift = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -500, max: 500, noNaN: true }))) as fc.Arbitrary<
  [number, number, number]
>;
/** The faces of a square plate with n × n holes of 2 mm radius. */
function plateOf(n: number): Face[] {
  const side = 6 * n,
    face = (key: string, carrier: Carrier, centre: Vec3, area: number): Face => ({
      key,
      names: [],
      carrier,
      centre,
      area,
      rim: Math.sqrt(area),
    });
  const plane = (key: string, normal: Vec3, centre: Vec3, area: number) =>
    face(key, { kind: "plane", normal, offset: dot3(normal, centre) }, centre, area);
  const h = side / 2;
  const holes = Array.from({ length: n * n }, (_, i) => {
    const at: Vec3 = [(i % n) * 6 + 3, Math.floor(i / n) * 6 + 3, 0];
    return face(`h${i}`, { kind: "cylinder", at, axis: [0, 0, 1], radius: 2, hollow: true }, at, 60);
  });
  return [
    plane("top", [0, 0, 1], [h, h, 2.5], side ** 2),
    plane("bottom", [0, 0, -1], [h, h, -2.5], side ** 2),
    plane("left", [-1, 0, 0], [0, h, 0], 5 * side),
    plane("right", [1, 0, 0], [side, h, 0], 5 * side),
    plane("front", [0, -1, 0], [h, 0, 0], 5 * side),
    plane("back", [0, 1, 0], [h, side, 0], 5 * side),
    ...holes,
  ];
}
/** Another order, the same each time. */
const shuffled = <T>(list: readonly T[]): T[] =>
  list
    .map((v, i) => ({ v, at: (i * 7919) % 10_007 }))
    .sort((a, b) => a.at - b.at)
    .map(({ v }) => v);
const runs = IS_LONG ? 300 : 12;

describe("placing a part on itself", () => {
  it.each(["foot", "arm"])("the %s is found wherever it lies and however it is turned", (name) => {
    fc.assert(
      fc.property(quaternion, shift, (q, t) => {
        const faces = parts[name]!;
        const away = faces.map((f) => movedFace(f, { rows: rotation(q), shift: t }));
        const found = placeOn(faces, away, 120)!;
        expect(found.matching.unmatchedReference).toEqual([]);
        expect(found.matching.unmatchedSubmission).toEqual([]);
        away.forEach((f, i) =>
          expect(distance3(movedFace(f, found.motion).centre, faces[i]!.centre)).toBeLessThan(1e-7 * 500),
        );
      }),
      { numRuns: runs, seed: 7 },
    );
  });
  it("a mirrored foot is never whole", () => {
    const faces = parts["foot"]!;
    const found = placeOn(
      faces,
      faces.map((f) => transformedFace(f, true, 1)),
      120,
    )!;
    expect(found.matching.unmatchedReference.length).toBeGreaterThan(0);
  });
  it("an arm on a foot brings less than half together", () => {
    const total = parts["foot"]!.reduce((s, f) => s + f.area, 0);
    const found = placeOn(parts["foot"]!, parts["arm"]!, 120);
    expect(found?.matching.area ?? 0).toBeLessThan(total / 2);
  });
  it("a plate with forty times forty holes is found in any order and place, and one hole too large in it", () => {
    const plate = plateOf(40),
      size = 340;
    const away = shuffled(plate.map((f) => movedFace(f, { rows: rotation([0.5, 0.5, -0.5, 0.5]), shift: [7, 8, 9] })));
    const found = placeOn(plate, away, size)!;
    expect(found.matching.pairs.length).toBe(1606);
    const k = away.findIndex((f) => f.carrier.kind === "cylinder");
    const wrong = away.map((f, i) =>
      i === k ? { ...f, area: 2 * f.area, carrier: { ...f.carrier, radius: 4 } as Carrier } : f,
    );
    expect(placeOn(plate, wrong, size)!.matching.pairs.length).toBe(1605);
  });
  it("a small hole among many like ones tells how a plate lies, even where it is drilled a little off", () => {
    const smaller = (f: Face, at: Vec3): Face => ({
      ...f,
      area: f.area / 4,
      rim: f.rim / 2,
      centre: at,
      carrier: { ...f.carrier, at, radius: 0.5 } as Carrier,
    });
    const plate = plateOf(12).map((f) => (f.key === "h14" ? smaller(f, f.centre) : f)),
      // 0.3 mm off, and the plate is drawn turned by half a turn about its middle
      drilled = plate.map((f) => (f.key === "h14" ? smaller(f, [f.centre[0] + 0.3, f.centre[1], 0]) : f));
    const turned: Rigid = { rows: [[-1, 0, 0], [0, -1, 0], [0, 0, 1]], shift: [72, 72, 0] }; // prettier-ignore
    for (const away of [drilled, drilled.map((f) => movedFace(f, turned))]) {
      const found = placeOn(plate, shuffled(away), 102)!;
      const hole = away.find((f) => f.key === "h14")!;
      const reference = plate.find((f) => f.key === "h14")!;
      expect(distance3(movedFace(hole, found.motion).centre, reference.centre)).toBeCloseTo(0.3, 6);
    }
  });
  it("directions stay unit", () => expect(Math.hypot(...unit3([1, 2, 3]))).toBeCloseTo(1, 15));
});
