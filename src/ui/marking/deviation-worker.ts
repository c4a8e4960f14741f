import { deviationMap } from "@/core/check/facets/deviation-map";
import type { Mesh } from "@/core/kernel/mesh";

/** What the map is made of, and the map back: plain arrays both ways. */
interface MapOrder {
  readonly part: Mesh;
  readonly reference: Mesh;
}

self.onmessage = ({ data }: MessageEvent<MapOrder>) => {
  const map = deviationMap(data.part, data.reference);
  const { positions, normals, triangles, distances } = map;
  const post = self.postMessage.bind(self) as (m: unknown, transfer: ArrayBufferLike[]) => void;
  post(map, [positions.buffer, normals.buffer, triangles.buffer, distances.buffer]);
};
