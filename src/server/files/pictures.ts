import type { ReportPicture } from "@/core/check/check";
import type { Mesh } from "@/core/kernel/mesh";

/** A mesh as text for JSON: little-endian numbers in base64. */
export interface PackedMesh {
  readonly positions: string;
  readonly normals: string;
  readonly triangles: string;
  readonly faces: Mesh["faces"];
  readonly edges: readonly string[];
  /** Left out by pictures made before it was known. */
  readonly smooth?: readonly boolean[];
}
export type PackedPicture = { readonly [K in keyof ReportPicture]: PackedMesh };

const pack = (a: Float32Array | Uint32Array) => Buffer.from(a.buffer, a.byteOffset, a.byteLength).toString("base64");
export const packMesh = (m: Mesh): PackedMesh => ({
  positions: pack(m.positions),
  normals: pack(m.normals),
  triangles: pack(m.triangles),
  faces: m.faces,
  edges: m.edges.map(pack),
  smooth: m.smooth,
});
export const packPicture = (p: ReportPicture): PackedPicture =>
  Object.fromEntries(Object.entries(p).map(([k, m]) => [k, packMesh(m as Mesh)])) as unknown as PackedPicture;
