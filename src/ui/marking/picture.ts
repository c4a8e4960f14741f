import { perAxis } from "@/core/geometry/vector";
import { useEffect, useState } from "react";
import type { ReportPicture } from "@/core/check/check";
import type { Mesh } from "@/core/kernel/mesh";
import type { Camera } from "../bench/view/camera";
import { unpackMesh } from "../parts/packed-mesh";

const corners = (m: Mesh): [number, number, number][] => {
  const low = [Infinity, Infinity, Infinity],
    high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < m.positions.length; i++) {
    low[i % 3] = Math.min(low[i % 3]!, m.positions[i]!);
    high[i % 3] = Math.max(high[i % 3]!, m.positions[i]!);
  }
  return [0, 1, 2, 3, 4, 5, 6, 7].map((k) => [...perAxis((a) => (k & (1 << a) ? high : low)[a]!)]);
};

/** Fetches the meshes of a report once and brings them into view. */
export function usePicture(submission: string, camera: Camera) {
  const [meshes, setMeshes] = useState<ReportPicture>();
  const [trouble, setTrouble] = useState<string>();
  useEffect(() => {
    const stop = new AbortController();
    fetch(`/api/submissions/${submission}/picture`, { signal: stop.signal })
      .then(async (r) => {
        const data = (await r.json()) as Record<string, Parameters<typeof unpackMesh>[0]>;
        if (!r.ok) return setTrouble(String(data["sentence"]));
        const unpacked = Object.fromEntries(
          Object.entries(data).map(([k, m]) => [k, unpackMesh(m)]),
        ) as unknown as ReportPicture;
        setMeshes(unpacked);
        camera.fit(corners(unpacked.submission ?? unpacked.reference));
      })
      .catch(
        (e: Error) => e.name !== "AbortError" && setTrouble("The picture could not be fetched. Reload to try again."),
      );
    return () => stop.abort();
  }, [submission, camera]);
  const fit = (which: "difference" | "deviation" | "submission" | "reference") =>
    meshes && camera.fit(corners((which === "reference" ? meshes.reference : meshes.submission) ?? meshes.reference));
  return { meshes, trouble, fit };
}
