"use client";

import { useRef } from "react";
import { DATUM_FRAMES, normalOf } from "@/core/geometry/frame";
import { add3, dot3, perAxis, scale3 } from "@/core/geometry/vector";
import type { BenchStore } from "../store";
import { screenPath } from "../sketch/curve-ink";
import { useCamera } from "./viewport";

/** The plane that cuts the part open, and an arrow to drag it by. */
export function SectionHandle({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const section = store((s) => s.looking.section),
    box = store((s) => s.built?.properties?.box);
  const grip = useRef<{ x: number; y: number; offset: number }>(undefined);
  if (!section || !box) return null;
  const frame = DATUM_FRAMES[section.base],
    n = normalOf(frame),
    middle = scale3(add3(box.min, box.max), 0.5);
  const foot = add3(middle, scale3(n, section.offset - dot3(n, middle)));
  const half = 0.6 * Math.hypot(...perAxis((i) => box.max[i] - box.min[i])),
    here = { ...frame, origin: foot };
  const a = camera.toPixels(foot),
    tip = camera.toPixels(add3(foot, scale3(n, 1))),
    u = [tip[0] - a[0], tip[1] - a[1]] as const,
    l = Math.hypot(...u);
  // seen from straight ahead there is nothing to drag along
  const way = l > 0.05 * camera.scale ? ([u[0] / l, u[1] / l] as const) : undefined,
    end = way && ([a[0] + way[0] * 46, a[1] + way[1] * 46] as const);
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <path
        d={screenPath(
          camera,
          here,
          [
            [-half, -half],
            [half, -half],
            [half, half],
            [-half, half],
          ],
          true,
        )}
        fill="none"
        stroke="var(--color-accent)"
        strokeWidth={1}
        strokeDasharray="14 3 3 3"
      />
      {way && end && (
        <g
          data-section-handle
          data-overlay
          className="pointer-events-auto cursor-grab"
          stroke="var(--color-accent)"
          fill="var(--color-accent)"
          tabIndex={0}
          role="slider"
          aria-label="Section plane"
          aria-valuenow={section.offset}
          onKeyDown={(event) => {
            const by =
              event.key === "ArrowUp" || event.key === "ArrowRight"
                ? 1
                : event.key === "ArrowDown" || event.key === "ArrowLeft"
                  ? -1
                  : 0;
            if (by) {
              event.preventDefault();
              event.stopPropagation();
              store.getState().look({ section: { ...section, offset: section.offset + by } });
            }
          }}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            grip.current = { x: e.clientX, y: e.clientY, offset: section.offset };
          }}
          onPointerMove={(e) => {
            const g = grip.current;
            if (!g) return;
            const moved = ((e.clientX - g.x) * way[0] + (e.clientY - g.y) * way[1]) / l;
            store.getState().look({ section: { ...section, offset: Math.round((g.offset + moved) * 10) / 10 } });
          }}
          onPointerUp={() => (grip.current = undefined)}
          onPointerCancel={() => (grip.current = undefined)}
        >
          <path d={`M${a[0]} ${a[1]}L${end[0]} ${end[1]}`} strokeWidth={12} opacity={0} />
          <path d={`M${a[0]} ${a[1]}L${end[0]} ${end[1]}`} strokeWidth={2.4} />
          <circle cx={end[0]} cy={end[1]} r={8} />
        </g>
      )}
    </svg>
  );
}
