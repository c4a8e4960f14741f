import { describe, expect, it } from "vitest";
import type { Mesh } from "@/core/kernel/mesh";
import { unpackMesh } from "@/ui/parts/packed-mesh";
import { packMesh, packPicture } from "./pictures";

const mesh: Mesh = {
  positions: Float32Array.from([0, 1.5, -2, 3e9, 1e-9, 7]),
  normals: Float32Array.from([0, 0, 1, 0, 0, 1]),
  triangles: Uint32Array.from([0, 1, 70000]),
  faces: [{ start: 0, count: 3 }],
  edges: [Float32Array.from([0, 0, 0, 1, 2, 3]), new Float32Array(0)],
  smooth: [true, false],
  owners: [0, 0],
};

describe("meshes in JSON", () => {
  it("come back number for number", () => {
    expect(unpackMesh(JSON.parse(JSON.stringify(packMesh(mesh))) as ReturnType<typeof packMesh>)).toEqual(mesh);
  });
  it("keep what a picture has and nothing else", () => {
    expect(Object.keys(packPicture({ reference: mesh, extra: mesh })).sort()).toEqual(["extra", "reference"]);
  });
});
