"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { kindOf, titleOf } from "@/core/part/steps/kinds";
import type { PartDocument } from "@/core/part/document";
import { COINCIDENT } from "@/core/geometry/tolerance";
import type { Sketch } from "@/core/sketch/sketch";
import { drivingSizes } from "@/core/sketch/sizes";
import type { LengthUnit } from "@/core/units/quantity";
import { dimensionText } from "../../bench/sketch/dimension-graphic";
import type { Sheet } from "@/core/sheet/sheet";
import type { Mesh } from "@/core/kernel/mesh";
import { BenchKernel } from "../../bench/kernel/client";
import { Camera } from "../../bench/view/camera";
import { Viewport } from "../../bench/view/viewport";
import { cornersOf } from "../picture";
import { SketchFigure } from "./sketch-figure";

/** The numbers a Sheet prints, mm and radians. */
export const printedOn = (sheet: Pick<Sheet, "dimensions"> | null): number[] =>
  (sheet?.dimensions ?? []).flatMap((d) => d.values ?? []);

/** The steps read as sentences, with their sketches, and the part as it stood after each. */
export function StepsView({
  document,
  printed,
}: {
  document: PartDocument;
  /** Numbers that the Sheet prints, mm and radians. */
  printed: readonly number[];
}) {
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
                    <Dimensions sketch={s.sketch} unit={document.units} printed={printed} />
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

/** The dimensions of a sketch; those whose number no reader of the Sheet can know are lit. */
function Dimensions({ sketch, unit, printed }: { sketch: Sketch; unit: LengthUnit; printed: readonly number[] }) {
  const sizes = drivingSizes(sketch, unit);
  const isPrinted = (v: number) => printed.some((p) => Math.abs(p - v) <= COINCIDENT * Math.max(1, Math.abs(v)));
  if (!sketch.dimensions.length) return <span className="quiet text-xs">no dimensions</span>;
  return (
    <span className="figures mt-1 flex flex-wrap gap-x-2 text-xs" data-dimensions>
      {sketch.dimensions.map((d) => {
        const value = sizes.ok ? sizes.value.get(d.id) : undefined;
        const isKnown = value !== undefined && isPrinted(Math.abs(value));
        return (
          <span
            key={d.id}
            className={isKnown ? "" : "font-bold text-accent underline"}
            title={isKnown ? undefined : "This number does not stand on the Sheet"}
          >
            {dimensionText(d, unit, sketch)}
          </span>
        );
      })}
    </span>
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
