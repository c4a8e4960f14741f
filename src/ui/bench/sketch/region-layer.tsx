"use client";

import { frameOf } from "@/core/part/steps/sketch/schema";
import { findRegions, regionOf, type Region } from "@/core/sketch/regions";
import { diagnosisOf, sketchOf, type BenchStore } from "../store";
import { isSeen } from "../view/paint";
import { useCamera } from "../view/viewport";
import { curvePath, regionPath } from "./curve-ink";

/** While a step is being made: the regions of its sketch, to be taken or left by a click. */
export function RegionLayer({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const mode = store((s) => s.mode);
  const document = store((s) => s.history.present);
  if (mode.kind !== "step" || (mode.draft.kind !== "extrude" && mode.draft.kind !== "revolve")) return null;
  const { draft } = mode;
  const stored = draft.sketch === undefined ? undefined : sketchOf(document, draft.sketch);
  const sketch = stored && diagnosisOf(stored, document.units)?.sketch;
  if (!sketch) return null;
  const frame = frameOf(sketch.plane);
  const { regions } = findRegions(sketch);
  const meant = draft.regions?.map((name) => regionOf(regions, name)) ?? regions.filter((r) => r.depth % 2 === 0);
  const taken = new Set(meant);
  const toggle = (region: Region) => {
    const next = regions.filter((r) => (r === region) !== taken.has(r)).map((r) => r.identity);
    store.getState().changeDraft((d) => {
      const { regions: _, ...rest } = d as typeof draft;
      return next.length ? { ...rest, regions: next } : rest;
    });
  };
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full text-base-content">
      {sketch.curves.map((c) => (
        <path
          key={c.id}
          d={curvePath(camera, frame, c)}
          stroke="currentColor"
          strokeWidth={1.2}
          strokeDasharray={c.construction ? "6 4" : undefined}
          fill="none"
        />
      ))}
      {regions.map((r) => (
        <path
          key={r.name}
          d={regionPath(camera, frame, r)}
          fillRule="evenodd"
          fill={taken.has(r) ? "var(--color-accent)" : "var(--color-secondary)"}
          fillOpacity={taken.has(r) ? 0.22 : 0.05}
          stroke={taken.has(r) ? "var(--color-accent)" : "var(--color-secondary)"}
          strokeWidth={1.2}
          className="pointer-events-auto cursor-pointer"
          data-region={r.name}
          onClick={() => toggle(r)}
        >
          <title>{taken.has(r) ? "Taken: click to leave it" : "Click to take this region"}</title>
        </path>
      ))}
    </svg>
  );
}

/**
 * While the solid is looked at: sketches that no step uses yet, so that they are not lost from sight, and those
 * switched on.
 */
export function IdleSketches({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const document = store((s) => s.history.present),
    looking = store((s) => s.looking);
  const used = new Set(
    document.steps.flatMap((s) => ("sketch" in s && typeof s.sketch === "string" ? [s.sketch] : [])),
  );
  const idle = document.steps.flatMap((s) =>
    s.kind === "sketch" && isSeen(looking, s.id, looking.sketches && !used.has(s.id)) ? [s] : [],
  );
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full text-base-content">
      {idle.map((s) => (
        <g key={s.id} data-idle={s.id}>
          {s.sketch.curves.map((c) => (
            <path
              key={c.id}
              d={curvePath(camera, frameOf(s.sketch.plane), c)}
              stroke="currentColor"
              strokeWidth={1.6}
              strokeDasharray={c.construction ? "6 4" : undefined}
              fill="none"
            />
          ))}
        </g>
      ))}
    </svg>
  );
}
