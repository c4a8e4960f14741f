"use client";

import { useRef } from "react";
import { add3, scale3, type Vec2 } from "@/core/geometry/vector";
import { inUnit } from "@/core/units/quantity";
import { handlesOf, type Handle } from "../steps/handles";
import type { BenchStore } from "../store";
import type { Camera } from "./camera";
import { useCamera } from "./viewport";

/** Arrows that drag the numbers of the step whose card is open. */
export function StepHandles({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const mode = store((s) => s.mode), document = store((s) => s.history.present), under = store((s) => s.built?.under?.model);
  if (mode.kind !== "step") return null;
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      {handlesOf(document, mode.draft, under).map((h) => <Arrow key={h.name} store={store} camera={camera} handle={h} />)}
    </svg>
  );
}

/** How far apart the values are that dragging stops at: mm, inches, degrees. */
const STEPS = { mm: 0.5, in: 1 / 32, angle: 5 };

function Arrow({ store, camera, handle }: { store: BenchStore; camera: Camera; handle: Handle }) {
  const grip = useRef<{ x: number; y: number; value: number; way: Vec2; perPixel: number }>(undefined);
  const { units } = store.getState().history.present, { foot, along, value, per, quantity } = handle;
  const a = camera.toPixels(foot), b = camera.toPixels(add3(foot, scale3(along, value * per))), one = camera.toPixels(add3(foot, along)), u: Vec2 = [one[0] - a[0], one[1] - a[1]], l = Math.hypot(...u);
  // seen from straight ahead there is nothing to drag along
  if (l < 0.05 * camera.scale) return null;
  const way: Vec2 = [u[0] / l, u[1] / l], tip: Vec2 = [b[0] + way[0] * 22, b[1] + way[1] * 22];
  const put = (next: number) => {
    const step = quantity === "angle" ? STEPS.angle : STEPS[units], shown = quantity === "angle" ? (next * 180) / Math.PI : inUnit(next, units);
    const text = String(Number(Math.max(step, Math.round(shown / step) * step).toFixed(5)));
    store.getState().changeDraft((d) => handle.put(d, text));
  };
  return (
    <g
      data-handle={handle.name} data-overlay className="pointer-events-auto cursor-grab" stroke="var(--color-accent)" fill="var(--color-accent)"
      onPointerDown={(e) => { e.currentTarget.setPointerCapture(e.pointerId); grip.current = { x: e.clientX, y: e.clientY, value, way, perPixel: 1 / (l * per) }; }}
      onPointerMove={(e) => { const g = grip.current; if (g) put(g.value + ((e.clientX - g.x) * g.way[0] + (e.clientY - g.y) * g.way[1]) * g.perPixel); }}
      onPointerUp={() => (grip.current = undefined)}
    >
      <title>{handle.name}: drag</title>
      <path d={`M${b[0]} ${b[1]}L${tip[0]} ${tip[1]}`} strokeWidth={14} opacity={0} />
      {quantity === "length" && <path d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`} strokeWidth={1} strokeDasharray="4 3" />}
      <path d={`M${b[0]} ${b[1]}L${tip[0]} ${tip[1]}`} strokeWidth={2.6} />
      <path d={`M${tip[0] + way[0] * 9} ${tip[1] + way[1] * 9}L${tip[0] - way[1] * 6} ${tip[1] + way[0] * 6}L${tip[0] + way[1] * 6} ${tip[1] - way[0] * 6}Z`} />
    </g>
  );
}
