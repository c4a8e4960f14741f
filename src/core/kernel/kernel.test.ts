import { beforeAll, describe, expect, it } from "vitest";
import { DATUM_FRAMES } from "@/core/geometry/frame";
import { findRegions } from "@/core/sketch/regions";
import { emptySketch, type Curve } from "@/core/sketch/sketch";
import { openNodeKernel } from "@/worker/kernel";
import { combine } from "./boolean";
import { facesOf } from "./faces";
import { facePoints } from "./scene";
import { meshOf } from "./mesh";
import { KernelFault, type Kernel } from "./opencascade";
import { placed } from "./place";
import { prism } from "./sweep";
import { eigen3, propertiesOf } from "./properties";
import { formatFace } from "@/core/naming/names";
import { type Solid } from "./solid";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const rectangle = (x: number, y: number, w: number, h: number): Curve[] => [
  { id: "l1", kind: "line", start: [x, y], end: [x + w, y] },
  { id: "l2", kind: "line", start: [x + w, y], end: [x + w, y + h] },
  { id: "l3", kind: "line", start: [x + w, y + h], end: [x, y + h] },
  { id: "l4", kind: "line", start: [x, y + h], end: [x, y] },
];
function block(step: string, x: number, y: number, w: number, h: number, from: number, to: number): Solid {
  const { regions } = findRegions({ ...emptySketch("top"), curves: rectangle(x, y, w, h) });
  return prism(kernel, DATUM_FRAMES.top, regions[0]!, from, to, step);
}
function rod(step: string, x: number, y: number, r: number, from: number, to: number): Solid {
  const { regions } = findRegions({
    ...emptySketch("top"),
    curves: [{ id: "c1", kind: "circle", centre: [x, y], radius: r }],
  });
  return prism(kernel, DATUM_FRAMES.top, regions[0]!, from, to, step);
}
const volume = (s: Solid) => propertiesOf(kernel, s).volume;
const keys = (s: Solid) =>
  facesOf(kernel, s)
    .map((f) => f.key)
    .sort();

describe("a prism", () => {
  it("names its faces by step, role and curve", () => {
    expect(keys(block("e", 0, 0, 4, 3, 0, 2))).toEqual([
      "e/end",
      "e/side/l1",
      "e/side/l2",
      "e/side/l3",
      "e/side/l4",
      "e/start",
    ]);
  });
  it("has outward normals", () => {
    const faces = facesOf(kernel, block("e", 0, 0, 4, 3, 0, 2));
    const normal = (key: string) => {
      const c = faces.find((f) => f.key === key)!.carrier;
      return c.kind === "plane" ? c.normal : undefined;
    };
    expect(normal("e/end")).toEqual([0, 0, 1]);
    expect(normal("e/start")).toEqual([0, 0, -1]);
    expect(normal("e/side/l1")).toEqual([0, -1, 0]);
    expect(normal("e/side/l2")).toEqual([1, 0, 0]);
  });
  it("tells a post from a hole", () => {
    const post = facesOf(kernel, rod("r", 0, 0, 2, 0, 5)).find((f) => f.key === "r/side/c1")!;
    expect(post.carrier).toMatchObject({ kind: "cylinder", radius: 2, hollow: false });
    const drilled = combine(kernel, "cut", block("e", -5, -5, 10, 10, 0, 5), [rod("r", 0, 0, 2, -1, 6)]);
    const hole = facesOf(kernel, drilled).find((f) => f.key === "r/side/c1")!;
    expect(hole.carrier).toMatchObject({ kind: "cylinder", radius: 2, hollow: true });
    expect(hole.area).toBeCloseTo(2 * Math.PI * 2 * 5, 9);
  });
});

describe("combining", () => {
  it("adds, subtracts and intersects with the volumes of arithmetic", () => {
    const a = block("a", 0, 0, 4, 4, 0, 4);
    const b = block("b", 2, 2, 4, 4, 2, 6);
    expect(volume(combine(kernel, "fuse", a, [b]))).toBeCloseTo(64 + 64 - 8, 9);
    expect(volume(combine(kernel, "cut", a, [b]))).toBeCloseTo(64 - 8, 9);
    expect(volume(combine(kernel, "common", a, [b]))).toBeCloseTo(8, 9);
  });
  it("leaves its arguments alone", () => {
    const a = block("a", 0, 0, 4, 4, 0, 4);
    combine(kernel, "cut", a, [rod("r", 2, 2, 1, -1, 5)]);
    expect(volume(a)).toBeCloseTo(64, 12);
  });
  it("merges neighbours on one carrier and keeps both names, the older first", () => {
    const joined = combine(kernel, "fuse", block("a", 0, 0, 4, 4, 0, 4), [block("b", 4, 0, 4, 4, 0, 4)]);
    const faces = facesOf(kernel, joined);
    expect(faces).toHaveLength(6);
    const top = faces.find((f) => f.key === "a/end")!;
    expect(top.names.map(formatFace)).toEqual(["a/end", "b/end"]);
    expect(top.area).toBeCloseTo(32, 12);
  });
  it("numbers the pieces of a face that was split", () => {
    const split = combine(kernel, "cut", block("a", 0, 0, 10, 4, 0, 4), [block("slot", 4, -1, 2, 6, 2, 5)]);
    expect(keys(split)).toEqual(
      expect.arrayContaining(["a/end", "a/end~2", "slot/start", "slot/side/l2", "slot/side/l4"]),
    );
  });
  it("counts bodies that come apart", () => {
    const apart = combine(kernel, "cut", block("a", 0, 0, 10, 4, 0, 4), [block("saw", 4, -1, 2, 6, -1, 5)]);
    expect(propertiesOf(kernel, apart)).toMatchObject({ bodies: 2, valid: true, closed: true });
  });
});

describe("placing", () => {
  it("moves without changing anything that is measured", () => {
    const part = combine(kernel, "cut", block("a", 0, 0, 10, 4, 0, 4), [rod("r", 3, 2, 1, -1, 5)]);
    const moved = placed(kernel, part, {
      rows: [
        [0, -1, 0],
        [1, 0, 0],
        [0, 0, 1],
      ],
      shift: [7, 8, 9],
    });
    const [p, q] = [propertiesOf(kernel, part), propertiesOf(kernel, moved)];
    expect(q.volume).toBeCloseTo(p.volume, 10);
    expect(q.area).toBeCloseTo(p.area, 10);
    expect(q.centre[0]).toBeCloseTo(7 - p.centre[1], 10);
    expect(q.box.min).toEqual([3, 8, 9]);
    expect(keys(moved)).toEqual(keys(part));
  });
});

describe("pictures", () => {
  it("of a block have twelve edges and two triangles a face", () => {
    const mesh = meshOf(kernel, block("a", 0, 0, 4, 3, 0, 2), 0.1);
    expect(mesh.edges).toHaveLength(12);
    expect(mesh.faces.map((f) => f.count)).toEqual([6, 6, 6, 6, 6, 6]);
  });
  it("leave out the seam of a post", () => {
    expect(meshOf(kernel, rod("r", 0, 0, 2, 0, 5), 0.05).edges).toHaveLength(2);
  });
  it("have unit normals", () => {
    const { normals } = meshOf(kernel, rod("r", 0, 0, 2, 0, 5), 0.05);
    for (let i = 0; i < normals.length; i += 3)
      expect(Math.hypot(normals[i]!, normals[i + 1]!, normals[i + 2]!)).toBeCloseTo(1, 5);
  });
  it("give the corner points of each face", () => {
    const points = facePoints(kernel, block("a", 0, 0, 4, 3, 0, 2));
    expect(points).toHaveLength(6);
    for (const face of points)
      for (const [x, y, z] of face) expect(x >= 0 && x <= 4 && y >= 0 && y <= 3 && z >= 0 && z <= 2).toBe(true);
  });
});

describe("the instance", () => {
  it("turns an exception of the library into a sentence", () => {
    expect(() =>
      kernel.guard("trying", () => {
        throw new KernelFault("no");
      }),
    ).toThrow("no");
    const { library } = kernel;
    expect(() => kernel.guard("making nothing", () => new library.BRepBuilderAPI_MakeWire().Wire())).toThrow(
      KernelFault,
    );
  });
  it("tells how large its heap is", () => {
    expect(kernel.heapBytes).toBeGreaterThan(1e6);
  });
  it("releases what was never filled, and nothing at all", () => {
    const box = new kernel.library.Bnd_Box();
    expect(() => kernel.release(box, undefined, null)).not.toThrow();
  });
});

describe("eigenvalues", () => {
  it.each([
    [
      [
        [2, 0, 0],
        [0, 3, 0],
        [0, 0, 1],
      ],
      [1, 2, 3],
    ],
    [
      [
        [2, 1, 0],
        [1, 2, 0],
        [0, 0, 5],
      ],
      [1, 3, 5],
    ],
    [
      [
        [0, 0, 0],
        [0, 0, 0],
        [0, 0, 0],
      ],
      [0, 0, 0],
    ],
  ])("of %j are %j", (m, want) => {
    eigen3(m).values.forEach((v, i) => expect(v).toBeCloseTo(want[i]!, 12));
  });
});
