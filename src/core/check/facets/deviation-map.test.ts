import { beforeAll, describe, expect, it } from "vitest";
import { meshOf } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { circ, extrude, part, rect, sketch } from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import { deviationMap } from "./deviation-map";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** As coarse as pictures are. */
const mesh = (document: PartDocument) => {
  const body = rebuild(kernel, document).body!;
  const m = meshOf(kernel, body, 0.2, 0.5);
  kernel.release(body.shape);
  return m;
};
const disc = (radius: number, x = 0) => part(sketch("s", "top", circ(x, 0, radius)), extrude("b", "s", 10));

describe("the map of deviations", () => {
  it("shows nothing on the same part, though its facets begin elsewhere", () => {
    const turned = part(sketch("s", "front", circ(0, 0, 20)), extrude("b", "s", 10));
    const m = mesh(disc(20)),
      other = mesh(turned);
    expect(deviationMap(m, m).most).toBeLessThan(0.002);
    expect(deviationMap(other, other).most).toBeLessThan(0.002);
  });
  it("tells a larger radius by its amount, outside", () => {
    const m = deviationMap(mesh(disc(20.5)), mesh(disc(20)));
    expect(m.most).toBeCloseTo(0.5, 1);
    const wall = [...m.distances].filter((_, i) => Math.abs(m.normals[3 * i + 2]!) < 0.1);
    expect(Math.min(...wall)).toBeGreaterThan(0.45);
  });
  it("tells a smaller one inside, and the typical distance by area", () => {
    const m = deviationMap(mesh(disc(19)), mesh(disc(20)));
    expect(Math.min(...m.distances)).toBeCloseTo(-1, 1);
    // wall of 2πrh that is 1 off; the flats coincide
    const share = (2 * Math.PI * 19 * 10) / (2 * Math.PI * 19 * 10 + 2 * Math.PI * 19 ** 2);
    expect(m.typical).toBeCloseTo(Math.sqrt(share), 1);
  });
  it("shows where a hole is missing amid a large flat face, which has no corner there", () => {
    const holed = part(sketch("s", "top", rect(0, 0, 80, 60), circ(40, 30, 10, "c")), extrude("b", "s", 10));
    const m = deviationMap(mesh(part(sketch("s", "top", rect(0, 0, 80, 60)), extrude("b", "s", 10))), mesh(holed));
    expect(m.most).toBeGreaterThan(9);
  });
});
