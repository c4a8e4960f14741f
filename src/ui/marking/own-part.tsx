"use client";

import { useEffect, useMemo, useState } from "react";
import type { Mesh } from "@/core/kernel/mesh";
import { add3, length3, scale3, sub3, unit3, type Vec3, vec3 } from "@/core/geometry/vector";
import type { ShownMark } from "@/core/grade/shows";
import type { ShownPlace } from "@/server/marking/results";
import { Camera, type Look } from "../bench/view/camera";
import { useCamera, Viewport } from "../bench/view/viewport";
import { unpackMesh } from "../parts/packed-mesh";
import { boxOfMesh, cornersOf } from "./picture";
import { PlaceLabels } from "./place-labels";

interface Spot {
  readonly text: string;
  readonly at: Vec3;
}

/** The student's own part, turned to each place where something is wrong. */
export function OwnPart({
  submission,
  places,
  comments,
}: {
  submission: string;
  places: readonly ShownPlace[];
  comments: ShownMark["comments"];
}) {
  const [camera] = useState(() => new Camera());
  useCamera(camera);
  const [mesh, setMesh] = useState<Mesh>();
  const [trouble, setTrouble] = useState<string>();
  const spots = useMemo((): Spot[] => {
    const pinned = comments.flatMap((c) => (c.pin?.on === "part" ? [{ text: c.text, at: c.pin.at }] : []));
    return [...pinned, ...places];
  }, [places, comments]);
  const [chosen, setChosen] = useState(0);
  useEffect(() => {
    const stop = new AbortController();
    fetch(`/api/submissions/${submission}/own-picture`, { signal: stop.signal })
      .then(async (r) => {
        const data = (await r.json()) as { submission?: Parameters<typeof unpackMesh>[0]; sentence?: string };
        if (!r.ok || !data.submission) return setTrouble(data.sentence ?? "There is no picture.");
        const found = unpackMesh(data.submission);
        setMesh(found);
        camera.fit(cornersOf(found));
      })
      .catch(
        (e: Error) => e.name !== "AbortError" && setTrouble("The picture could not be fetched. Reload to try again."),
      );
    return () => stop.abort();
  }, [submission, camera]);
  useEffect(() => {
    const spot = spots[chosen];
    if (!mesh || !spot) return;
    camera.turnTo(lookAt(mesh, spot.at), () => camera.fit(cornersOf(mesh)));
  }, [mesh, chosen, spots, camera]);
  const layers = useMemo(() => (mesh ? [{ mesh, style: "model" as const }] : []), [mesh]);
  const spot = spots[chosen];
  return (
    <section aria-label="Where on your part">
      <div className="h-72 border border-base-300">
        <Viewport camera={camera} layers={layers} leftTurns label="Your part">
          {!mesh && <p className="quiet absolute inset-x-0 top-1/3 text-center">{trouble ?? "Fetching your part …"}</p>}
          {mesh && spot && <PlaceLabels camera={camera} labels={[{ at: spot.at, word: "here", text: "here" }]} />}
        </Viewport>
      </div>
      <ul className="mt-2 text-sm">
        {spots.map((s, i) => (
          <li key={i}>
            <button
              className={`w-full cursor-pointer border-l-3 px-2 py-1 text-left first-letter:uppercase
                ${i === chosen ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}`}
              aria-pressed={i === chosen}
              onClick={() => setChosen(i)}
            >
              {s.text}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** From the side of the part that a place is on, and always from above. */
function lookAt(mesh: Mesh, at: Vec3): Look {
  const { low, high } = boxOfMesh(mesh);
  const middle = scale3(add3(low, high), 0.5);
  const out = sub3(at, middle);
  const flat: Vec3 = [out[0], out[1], 0];
  const way = length3(flat) > 0 ? unit3(flat) : vec3(0, -1, 0);
  const toViewer = unit3(add3(way, [0.35, -0.45, 0.75]));
  return { toViewer, right: unit3([-toViewer[1], toViewer[0], 0]) };
}
