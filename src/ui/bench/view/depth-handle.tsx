"use client";

import { useRef } from "react";
import { normalOf, toSpace } from "@/core/geometry/frame";
import { add3, scale3, type Vec3 } from "@/core/geometry/vector";
import { extentOf } from "@/core/sketch/profile";
import { frameOf } from "@/core/part/steps/sketch/sketch";
import { inUnit, readQuantity } from "@/core/units/quantity";
import { sketchOf, type BenchStore } from "../store";
import { useCamera } from "./viewport";

/** The arrow that drags an extrude's depth: it stands on the middle of its sketch, its tip where the depth ends. */
export function DepthHandle({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const mode = store((s) => s.mode), document = store((s) => s.history.present);
  const grip = useRef<{ x: number; y: number; depth: number }>(undefined);
  if (mode.kind !== "step" || mode.draft.kind !== "extrude" || mode.draft.extent.kind !== "depth") return null;
  const { draft } = mode, { extent } = mode.draft, sketch = sketchOf(document, draft.sketch), box = sketch && extentOf(sketch);
  const depth = readQuantity(extent.depth, "length", document.units, () => undefined);
  if (!sketch || !box || !depth.ok) return null;
  const frame = frameOf(sketch.plane), n = scale3(normalOf(frame), draft.reverse ? -1 : 1);
  const foot = toSpace(frame, [(box[0][0] + box[1][0]) / 2, (box[0][1] + box[1][1]) / 2]), a = camera.toPixels(foot), b = camera.toPixels(add3(foot, scale3(n, depth.value)) as Vec3);
  const one = camera.toPixels(add3(foot, n)), u = [one[0] - a[0], one[1] - a[1]] as const, l = Math.hypot(...u);
  if (l < 0.05 * camera.scale) return null;
  const way = [u[0] / l, u[1] / l] as const, tip = [b[0] + way[0] * 22, b[1] + way[1] * 22] as const;
  const put = (mm: number) => {
    const step = document.units === "mm" ? 0.5 : 25.4 / 32, d = Math.max(step, Math.round(mm / step) * step);
    store.getState().changeDraft((s) => (s.kind === "extrude" && s.extent.kind === "depth" ? { ...s, extent: { kind: "depth", depth: String(Number(inUnit(d, document.units).toFixed(5))) } } : s));
  };
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <g
        data-depth-handle data-overlay className="pointer-events-auto cursor-grab" stroke="var(--color-accent)" fill="var(--color-accent)"
        onPointerDown={(e) => { e.currentTarget.setPointerCapture(e.pointerId); grip.current = { x: e.clientX, y: e.clientY, depth: depth.value }; }}
        onPointerMove={(e) => grip.current && put(grip.current.depth + ((e.clientX - grip.current.x) * way[0] + (e.clientY - grip.current.y) * way[1]) / l)}
        onPointerUp={() => (grip.current = undefined)}
      >
        <path d={`M${b[0]} ${b[1]}L${tip[0]} ${tip[1]}`} strokeWidth={14} opacity={0} />
        <path d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`} strokeWidth={1} strokeDasharray="4 3" />
        <path d={`M${b[0]} ${b[1]}L${tip[0]} ${tip[1]}`} strokeWidth={2.6} />
        <path d={`M${tip[0] + way[0] * 9} ${tip[1] + way[1] * 9}L${tip[0] - way[1] * 6} ${tip[1] + way[0] * 6}L${tip[0] + way[1] * 6} ${tip[1] - way[0] * 6}Z`} />
      </g>
    </svg>
  );
}
