import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import type { Rigid } from "@/core/geometry/rigid";
import { distance3, unit3 } from "@/core/geometry/vector";
import { facesOf, type Face } from "@/core/kernel/faces";
import { rebuild } from "@/core/part/rebuild";
import { tripodFoot, vaneArm } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { movedFace, transformedFace } from "./match";
import { placeOn } from "./placement";

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
const runs = process.env["CALIPER_LONG"] ? 300 : 12;

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
  it("directions stay unit", () => expect(Math.hypot(...unit3([1, 2, 3]))).toBeCloseTo(1, 15));
});
