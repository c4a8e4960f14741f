"use client";

import { useParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { SheetFigure } from "../sheet/sheet-figure";
import { readSeen, whoIsHere, type Seen } from "./seen";
import { boxCorners } from "./slices/looking";
import { Camera } from "./view/camera";
import { Viewport } from "./view/viewport";

/** While a Bench is on its way: the part and its Sheet as they were seen last here, to be turned and read. */
export function AsItWas() {
  const { handout } = useParams<{ handout: string }>();
  const [seen, setSeen] = useState<Seen>();
  const [camera] = useState(() => new Camera());
  useEffect(() => {
    const me = whoIsHere();
    if (me) void readSeen(me, `/api/works/${handout}`).then(setSeen);
  }, [handout]);
  const box = seen?.built.properties?.box;
  useEffect(() => {
    if (box) camera.fit(boxCorners(box));
  }, [box, camera]);
  const mesh = seen?.built.mesh;
  const layers = useMemo(() => (mesh ? [{ mesh, style: "model" as const }] : []), [mesh]);
  if (!seen) return <p className="quiet p-8">Opening the Bench …</p>;
  return (
    <div className="flex h-screen flex-col overflow-hidden" data-as-it-was>
      <header className="flex items-center gap-3 border-b border-base-300 px-3.5 py-2">
        <h1 className="font-semibold">{seen.heading}</h1>
        <span role="status" className="quiet">
          As it was when you left; the Bench is opening …
        </span>
      </header>
      <div className="flex min-h-0 flex-1">
        <div className="w-[31%] overflow-auto p-2">{seen.sheet && <SheetFigure svg={seen.sheet} />}</div>
        <div className="min-w-0 flex-1 border-x-6 border-base-300" data-shaded={mesh?.faces.length}>
          <Viewport camera={camera} layers={layers} leftTurns label="Model" />
        </div>
        <ol className="w-[22%] list-inside list-decimal p-3.5" aria-label="Steps">
          {seen.steps.map((s, i) => (
            <li key={i} className="py-1">
              {s}
            </li>
          ))}
        </ol>
      </div>
    </div>
  );
}
