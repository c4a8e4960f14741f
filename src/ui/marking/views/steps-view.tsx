"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { kindOf, titleOf } from "@/core/part/steps/kinds";
import type { PartDocument } from "@/core/part/document";
import type { Mesh } from "@/core/kernel/mesh";
import { BenchKernel } from "../../bench/kernel/client";
import { Camera } from "../../bench/view/camera";
import { Viewport } from "../../bench/view/viewport";
import { cornersOf } from "../picture";
import { SketchFigure } from "./sketch-figure";

/** The steps read as sentences, with their sketches, and the part as it stood after each. */
export function StepsView({ document }: { document: PartDocument }) {
  const count = document.steps.length;
  const [upTo, setUpTo] = useState(count);
  const { mesh, busy, trouble } = useBuilt(document, upTo);
  const [camera] = useState(() => new Camera());
  const isFitted = useRef(false);
  useEffect(() => {
    if (!mesh || isFitted.current) return;
    isFitted.current = true;
    camera.fit(cornersOf(mesh));
  }, [mesh, camera]);
  const layers = useMemo(() => (mesh ? [{ mesh, style: "model" as const }] : []), [mesh]);
  return (
    <div className="flex h-full">
      <ol className="w-80 shrink-0 overflow-y-auto border-r border-base-300 text-sm" aria-label="Steps">
        {document.steps.map((s, i) => {
          const { title, detail } = kindOf(s).read(s, document.units);
          return (
            <li key={s.id}>
              <button
                className={`block w-full cursor-pointer border-l-3 px-3 py-2 text-left
                  ${i + 1 === upTo ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}
                  ${i >= upTo ? "border-dashed" : ""}`}
                aria-pressed={i + 1 === upTo}
                onClick={() => setUpTo(i + 1)}
              >
                <span className="font-semibold">
                  {i + 1} {s.name ?? title}
                </span>
                {i >= upTo && <span className="quiet"> · not yet</span>}
                {s.suppressed && <span className="quiet"> (left out)</span>}
                <span className="quiet block">{s.name ? `${title} · ${detail}` : detail}</span>
                {s.kind === "sketch" && (
                  <span className="mt-1 block">
                    <SketchFigure sketch={s.sketch} unit={document.units} />
                  </span>
                )}
              </button>
            </li>
          );
        })}
      </ol>
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="relative min-h-0 flex-1">
          <Viewport camera={camera} layers={layers} leftTurns label="The part as it was built">
            {!mesh && (
              <p className="quiet absolute inset-x-0 top-1/3 text-center">
                {trouble ?? (busy ? "Building …" : "No solid stands yet.")}
              </p>
            )}
          </Viewport>
        </div>
        <div className="border-t border-base-300 px-4 py-2">
          <label className="flex items-center gap-3 text-sm">
            <span className="quiet whitespace-nowrap">How it was built</span>
            <input
              type="range"
              className="range range-xs flex-1"
              min={0}
              max={count}
              step={1}
              value={upTo}
              onChange={(e) => setUpTo(Number(e.target.value))}
            />
            <span className="w-52 truncate">
              {upTo ? `${upTo} of ${count}: ${titleOf(document.steps[upTo - 1]!)}` : "before the first step"}
            </span>
          </label>
        </div>
      </div>
    </div>
  );
}

/** The part as it stands after so many steps, built in a worker. */
function useBuilt(document: PartDocument, upTo: number) {
  const [mesh, setMesh] = useState<Mesh>();
  const [busy, setBusy] = useState(true);
  const [trouble, setTrouble] = useState<string>();
  const kernel = useRef<BenchKernel>(undefined);
  useEffect(() => {
    const made = (kernel.current = new BenchKernel());
    return () => made.close();
  }, []);
  useEffect(() => {
    setBusy(true);
    kernel.current?.request(
      { document: { ...document, steps: document.steps.slice(0, upTo) }, at: undefined, fineness: 1 },
      {
        picture: (p) => {
          setMesh(p.mesh);
          setBusy(false);
        },
        settle: (_, sentence) => {
          setBusy(false);
          setTrouble(sentence);
        },
      },
    );
  }, [document, upTo]);
  return { mesh, busy, trouble };
}
