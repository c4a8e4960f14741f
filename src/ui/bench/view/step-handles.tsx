"use client";

import { useRef, type PointerEvent } from "react";
import { DATUM_FRAMES, faceFrame, toSpace } from "@/core/geometry/frame";
import { add3, scale3, type Vec2 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { HoleStep } from "@/core/part/steps/hole/schema";
import { inUnit } from "@/core/units/quantity";
import { handlesOf, type Handle } from "../steps/handles";
import type { BenchStore } from "../store";
import type { Camera } from "./camera";
import { faceNow } from "./refs";
import { useCamera } from "./viewport";

/** Arrows that drag the numbers of the step whose card is open. */
export function StepHandles({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const mode = store((s) => s.mode),
    document = store((s) => s.history.present),
    under = store((s) => s.built?.under?.model);
  if (mode.kind !== "step") return null;
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      {handlesOf(document, mode.draft, under).map((h) => (
        <Arrow key={h.name} store={store} camera={camera} handle={h} />
      ))}
      {mode.draft.kind === "hole" && <HolePoints store={store} camera={camera} draft={mode.draft} under={under} />}
    </svg>
  );
}

/** Holes that were placed freely can be dragged over their face. */
function HolePoints({
  store,
  camera,
  draft,
  under,
}: {
  store: BenchStore;
  camera: Camera;
  draft: HoleStep;
  under: Model | undefined;
}) {
  const held = useRef<string>(undefined),
    layer = useRef<SVGGElement>(null);
  const place = draft.on && "face" in draft.on && under ? faceNow(under, draft.on) : undefined,
    carrier = place === undefined ? undefined : under!.faces[place]!.carrier;
  const frame =
    carrier?.kind === "plane"
      ? faceFrame(carrier.normal, carrier.offset)
      : draft.on && "datum" in draft.on && draft.on.datum in DATUM_FRAMES
        ? DATUM_FRAMES[draft.on.datum as keyof typeof DATUM_FRAMES]
        : undefined;
  if (!frame) return null;
  const step =
    STEPS[store.getState().history.present.units] * (store.getState().history.present.units === "in" ? 25.4 : 1);
  const move = (e: PointerEvent<SVGCircleElement>) => {
    const box = layer.current!.ownerSVGElement!.getBoundingClientRect(),
      p = held.current && camera.onPlane(frame, [e.clientX - box.left, e.clientY - box.top]);
    if (!p) return;
    const at = p.map((v) => Number((Math.round(v / step) * step).toFixed(5))) as [number, number];
    store
      .getState()
      .changeDraft((d) =>
        d.kind === "hole"
          ? { ...d, points: d.points.map((q) => (q.id === held.current && "at" in q ? { ...q, at } : q)) }
          : d,
      );
  };
  const letGo = () => {
    held.current = undefined;
    store.getState().holdDraft(false);
  };
  return (
    <g ref={layer}>
      {draft.points.map((p) => {
        if (!("at" in p)) return null;
        const [x, y] = camera.toPixels(toSpace(frame, p.at));
        return (
          <circle
            key={p.id}
            data-hole-point={p.id}
            data-overlay
            cx={x}
            cy={y}
            r={7}
            className="pointer-events-auto cursor-move"
            fill="var(--color-base-100)"
            fillOpacity={0.5}
            stroke="var(--color-accent)"
            strokeWidth={2}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              held.current = p.id;
              store.getState().holdDraft(true);
            }}
            onPointerMove={move}
            onPointerUp={letGo}
            onPointerCancel={letGo}
          >
            <title>{p.id}: drag it over the face</title>
          </circle>
        );
      })}
    </g>
  );
}

/** How far apart the values are that dragging stops at: mm, inches, degrees. */
const STEPS = { mm: 0.5, in: 1 / 32, angle: 5 };

function Arrow({ store, camera, handle }: { store: BenchStore; camera: Camera; handle: Handle }) {
  const grip = useRef<{ x: number; y: number; value: number; way: Vec2; perPixel: number }>(undefined);
  const { units } = store.getState().history.present,
    { foot, along, value, per, quantity } = handle;
  const a = camera.toPixels(foot),
    b = camera.toPixels(add3(foot, scale3(along, value * per))),
    one = camera.toPixels(add3(foot, along)),
    u: Vec2 = [one[0] - a[0], one[1] - a[1]],
    l = Math.hypot(...u);
  // seen from straight ahead there is nothing to drag along
  if (l < 0.05 * camera.scale) return null;
  const way: Vec2 = [u[0] / l, u[1] / l],
    tip: Vec2 = [b[0] + way[0] * 22, b[1] + way[1] * 22];
  const put = (next: number) => {
    const step = quantity === "angle" ? STEPS.angle : STEPS[units],
      shown = quantity === "angle" ? (next * 180) / Math.PI : inUnit(next, units);
    const text = String(Number(Math.max(step, Math.round(shown / step) * step).toFixed(5)));
    store.getState().changeDraft((d) => handle.put(d, text));
  };
  const letGo = () => {
    grip.current = undefined;
    store.getState().holdDraft(false);
  };
  const off = (along: number, aside: number) =>
    `${tip[0] + way[0] * along - way[1] * aside} ${tip[1] + way[1] * along + way[0] * aside}`;
  return (
    <g
      data-handle={handle.name}
      data-overlay
      className="pointer-events-auto cursor-grab"
      stroke="var(--color-accent)"
      fill="var(--color-accent)"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        store.getState().holdDraft(true);
        grip.current = { x: e.clientX, y: e.clientY, value, way, perPixel: 1 / (l * per) };
      }}
      onPointerMove={(e) => {
        const g = grip.current;
        if (g) put(g.value + ((e.clientX - g.x) * g.way[0] + (e.clientY - g.y) * g.way[1]) * g.perPixel);
      }}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      <title>{handle.name}: drag</title>
      <path d={`M${b[0]} ${b[1]}L${tip[0]} ${tip[1]}`} strokeWidth={14} opacity={0} />
      {/* only shows how far: what lies under it, such as the middle of a region, is clicked through it */}
      {quantity === "length" && (
        <path
          d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
          className="pointer-events-none"
          strokeWidth={1}
          strokeDasharray="4 3"
        />
      )}
      <path d={`M${b[0]} ${b[1]}L${tip[0]} ${tip[1]}`} strokeWidth={2.6} />
      <path d={`M${off(9, 0)}L${off(0, 6)}L${off(0, -6)}Z`} />
    </g>
  );
}
