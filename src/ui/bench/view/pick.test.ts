import { beforeAll, describe, expect, it } from "vitest";
import { displayMesh } from "@/core/check/facets/display-mesh";
import type { Vec3 } from "@/core/geometry/vector";
import { modelOf } from "@/core/kernel/model";
import { rebuild } from "@/core/part/rebuild";
import { extrude, face, hole, part, rect, sketch } from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import type { Shown } from "../kernel/messages";
import { Camera } from "./camera";
import { thingsAt } from "./pick";
import { keyOf } from "./solid-layer";

let shown: Shown;
const camera = new Camera();
beforeAll(async () => {
  const kernel = await openNodeKernel();
  const { body } = rebuild(
    kernel,
    part(sketch("s", "top", rect(0, 0, 60, 40)), extrude("b", "s", 20), hole("h", face("b/end"), 10, [[30, 20]])),
  );
  shown = { mesh: displayMesh(kernel, body!, 80), model: modelOf(kernel, body!) };
  camera.resize(800, 600);
  camera.scale = 5;
  camera.target = [30, 20, 10];
});
const at = (p: Vec3, take: Parameters<typeof thingsAt>[3], cut?: Parameters<typeof thingsAt>[4]) =>
  thingsAt(camera, shown, camera.toPixels(p), take, cut).map((t) => keyOf(shown.model, t));
const ALL = ["vertex", "edge", "face"] as const;

describe("what lies under the pointer", () => {
  it("corners before edges before faces, then what lies behind", () => {
    expect(at([60, 0, 20], ALL)[0]).toBe("b/end&b/side/l1&b/side/l2");
    expect(at([40, 0, 20], ALL)[0]).toBe("b/end|b/side/l1");
    expect(at([40, 8, 20], ALL)[0]).toBe("b/end");
    expect(at([40, 8, 20], ALL).length).toBeGreaterThan(1);
  });
  it("only the kinds asked for", () => {
    expect(at([60, 0, 20], ["face"]).every((k) => !k.includes("|") && !k.includes("&"))).toBe(true);
    expect(at([40, 8, 20], ["vertex"])).toEqual([]);
  });
  it("through a hole one sees its wall", () => expect(at([30, 24.9, 18], ["face"])[0]).toBe("h/bore/p1"));
  it("what a section takes away cannot be picked", () => {
    // the front half is gone: the near wall is open, the bore lies bare
    const cut = { at: [0, 20, 0], normal: [0, -1, 0] } as const;
    expect(at([10, 0, 10], ["face"])).toContain("b/side/l1");
    expect(at([10, 0, 10], ["face"], cut)).not.toContain("b/side/l1");
    expect(at([60, 0, 20], ["vertex"], cut)).toEqual([]);
  });
  it("what is hidden is not picked, and what lies behind it is", () => {
    const end = shown.model.faces.findIndex((f) => f.key === "b/end");
    const without = (faces: number[], p: Vec3) =>
      thingsAt(camera, { ...shown, hidden: new Set(faces) }, camera.toPixels(p), ALL).map((t) => keyOf(shown.model, t));
    expect(without([], [40, 8, 20])[0]).toBe("b/end");
    expect(without([end], [40, 8, 20])[0]).not.toBe("b/end");
    // an edge goes only with both its faces
    expect(without([end], [40, 0, 20])[0]).toBe("b/end|b/side/l1");
    const all = shown.model.faces.map((_, i) => i);
    expect(without(all, [40, 0, 20])).toEqual([]);
  });
  it("in perspective a place is picked where it is drawn", () => {
    camera.perspective = true;
    expect(at([40, 8, 20], ALL)[0]).toBe("b/end");
    expect(at([60, 0, 20], ALL)[0]).toBe("b/end&b/side/l1&b/side/l2");
    const frame = { origin: [0, 0, 20], x: [1, 0, 0], y: [0, 1, 0] } as const,
      back = camera.onPlane(frame, camera.toPixels([40, 8, 20]))!;
    expect(back[0]).toBeCloseTo(40, 6);
    expect(back[1]).toBeCloseTo(8, 6);
    camera.perspective = false;
  });
});
