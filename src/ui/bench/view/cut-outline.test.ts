import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { meshOf, type Mesh } from "@/core/kernel/mesh";
import { rebuild } from "@/core/part/rebuild";
import { circ, extrude, part, rect, sketch } from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import { cutOutline } from "./cut-outline";

let kernel: Kernel, mesh: Mesh;
beforeAll(async () => {
  kernel = await openNodeKernel();
  const { body } = rebuild(
    kernel,
    part(
      sketch("s", "top", rect(0, 0, 20, 12)),
      extrude("b", "s", 8),
      sketch("t", "top", circ(40, 0, 5)),
      extrude("c", "t", 8, { operation: "separate" }),
    ),
  );
  mesh = meshOf(kernel, body!, 0.01, 0.1);
});
const length = (list: readonly number[]) => {
  let sum = 0;
  for (let i = 0; i < list.length; i += 6) sum += Math.hypot(...[0, 1, 2].map((k) => list[i + k]! - list[i + 3 + k]!));
  return sum;
};

describe("the outline of a section", () => {
  it("is as long as the cut face's edges: of a block and a disc", () => {
    expect(length(cutOutline(mesh, { at: [0, 0, 3], normal: [0, 0, 1] }))).toBeCloseTo(64 + 2 * Math.PI * 5, 1);
    expect(length(cutOutline(mesh, { at: [7, 0, 0], normal: [-1, 0, 0] }))).toBeCloseTo(40, 6);
  });
  it("a plane beside the part cuts nothing, a plane in a face counts once", () => {
    expect(cutOutline(mesh, { at: [0, 0, 9], normal: [0, 0, 1] })).toEqual([]);
    const inFace = length(cutOutline(mesh, { at: [0, 0, 8], normal: [0, 0, 1] })),
      turned = length(cutOutline(mesh, { at: [0, 0, 8], normal: [0, 0, -1] }));
    expect(Math.min(inFace, turned)).toBe(0);
  });
  it("hidden faces have none", () => {
    const block = new Set([0, 1, 2, 3, 4, 5]);
    expect(length(cutOutline(mesh, { at: [0, 0, 3], normal: [0, 0, 1] }, block))).toBeCloseTo(2 * Math.PI * 5, 1);
  });
  it("every line of the picture knows a face it bounds", () => {
    expect(mesh.owners).toHaveLength(mesh.edges.length);
    // the disc's two rims belong to its own faces
    expect(mesh.owners.filter((o) => o >= 6)).toHaveLength(2);
  });
});
