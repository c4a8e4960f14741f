"use client";

import { useEffect, useMemo, useState } from "react";
import type { ReportPicture } from "@/core/check/check";
import type { DeskSubmission } from "@/server/marking/desk";
import { Camera } from "../../bench/view/camera";
import { Viewport } from "../../bench/view/viewport";
import { LocalTime } from "../../parts/local-time";
import { fetchSubmission, pictureOf } from "../desk-data";
import { cornersOf } from "../picture";

interface Other {
  readonly desk: DeskSubmission;
  readonly meshes: ReportPicture | undefined;
}

/** Two tries of one student beside each other, looked at from the same side. */
export function TriesView({ desk, meshes }: { desk: DeskSubmission; meshes: ReportPicture | undefined }) {
  const others = desk.attempts.filter((a) => a.id !== desk.id);
  const [chosen, setChosen] = useState(others[0]?.id);
  const [other, setOther] = useState<Other>();
  const [trouble, setTrouble] = useState<string>();
  const [camera] = useState(() => new Camera());
  useEffect(() => {
    if (meshes) camera.fit(cornersOf(meshes.reference));
  }, [meshes, camera]);
  useEffect(() => {
    if (!chosen) return;
    let isOver = false;
    setTrouble(undefined);
    const load = async () => {
      const found = await fetchSubmission(chosen);
      const picture = found.checkedAt ? await pictureOf(chosen, found.checkedAt) : undefined;
      if (!isOver) setOther({ desk: found, meshes: picture });
    };
    load().catch((e: Error) => !isOver && setTrouble(e.message));
    return () => {
      isOver = true;
    };
  }, [chosen]);
  if (!others.length) return <p className="quiet p-8">This is the only try of {desk.person} on this handout.</p>;
  return (
    <div className="flex h-full flex-col">
      <div className="grid min-h-0 flex-1 grid-cols-2 divide-x divide-base-300">
        <Try camera={camera} title={`Try ${desk.attempt}`} meshes={meshes} points={desk.grade} />
        {other ? (
          <Try camera={camera} title={`Try ${other.desk.attempt}`} meshes={other.meshes} points={other.desk.grade} />
        ) : (
          <p className="quiet p-8">{trouble ?? "Fetching the other try …"}</p>
        )}
      </div>
      <div className="max-h-56 overflow-y-auto border-t border-base-300 px-4 py-2 text-sm">
        <label className="flex items-center gap-2">
          <span className="quiet">Beside</span>
          <select className="select select-xs w-64" value={chosen} onChange={(e) => setChosen(e.target.value)}>
            {others.map((a) => (
              <option key={a.id} value={a.id}>
                try {a.attempt}
                {a.points === null ? "" : `, ${a.points} of ${a.of}`}
              </option>
            ))}
          </select>
          {other && (
            <span className="quiet">
              handed in <LocalTime iso={other.desk.handedInAt} />
            </span>
          )}
        </label>
        {other && <Changes now={desk} then={other.desk} />}
      </div>
    </div>
  );
}

function Try({
  camera,
  title,
  meshes,
  points,
}: {
  camera: Camera;
  title: string;
  meshes: ReportPicture | undefined;
  points: DeskSubmission["grade"];
}) {
  const layers = useMemo(() => {
    if (!meshes?.submission) return [];
    return [
      { mesh: meshes.submission, style: "model" as const },
      ...(meshes.missing ? [{ mesh: meshes.missing, style: "missing" as const }] : []),
    ];
  }, [meshes]);
  return (
    <div className="relative min-w-0">
      <p className="absolute left-3 top-2 z-10 bg-base-100/85 px-1 text-sm font-semibold">
        {title}
        {points && (
          <span className="figures ml-2 font-normal">
            {points.points} / {points.of}
          </span>
        )}
      </p>
      <Viewport camera={camera} layers={layers} leftTurns label={title}>
        {!meshes?.submission && <p className="quiet absolute inset-x-0 top-1/3 text-center">No solid.</p>}
      </Viewport>
    </div>
  );
}

/** What became better and what worse, line by line. */
function Changes({ now, then }: { now: DeskSubmission; then: DeskSubmission }) {
  const before = new Map(then.grade?.lines.map((l) => [l.id, l]));
  const changed = (now.grade?.lines ?? []).filter((l) => before.get(l.id)?.points !== l.points);
  if (!changed.length) return <p className="quiet mt-1">Both earn the same on every line.</p>;
  return (
    <ul className="mt-1">
      {changed.map((l) => (
        <li key={l.id} className="flex gap-3">
          <span className="w-48 font-semibold">{l.title}</span>
          <span className="figures">
            {before.get(l.id)?.points ?? "–"} → {l.points}
          </span>
          <span className="quiet min-w-0 flex-1 truncate">{l.sentence}</span>
        </li>
      ))}
    </ul>
  );
}
