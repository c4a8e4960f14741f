import type { Mesh } from "@/core/kernel/mesh";

interface Packed {
  readonly positions: string;
  readonly normals: string;
  readonly triangles: string;
  readonly faces: Mesh["faces"];
  readonly edges: readonly string[];
  /** Left out by pictures made before it was known. */
  readonly smooth?: readonly boolean[];
}

const bytes = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0)).buffer;

/** A mesh as the server packs it, back in arrays. */
export const unpackMesh = (packed: Packed): Mesh => ({
  positions: new Float32Array(bytes(packed.positions)),
  normals: new Float32Array(bytes(packed.normals)),
  triangles: new Uint32Array(bytes(packed.triangles)),
  faces: packed.faces,
  edges: packed.edges.map((e) => new Float32Array(bytes(e))),
  smooth: packed.smooth ?? packed.edges.map(() => false),
  owners: packed.edges.map(() => 0),
});
