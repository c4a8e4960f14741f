"use client";

import { useEffect, useRef, useState, useSyncExternalStore, type ReactNode } from "react";
import type { Vec2 } from "@/core/geometry/vector";
import type { Camera } from "./camera";
import { DRAG_PIXELS, navigate } from "./navigation";
import { Scene, type Layer } from "./scene";

/** Tells React when the camera has moved. */
export const useCamera = (camera: Camera) =>
  useSyncExternalStore(
    camera.subscribe,
    () => camera.version,
    () => 0,
  );

/** Nothing where the browser has no WebGL to give: old machines, or too many windows that use it. */
function sceneOn(place: HTMLElement, camera: Camera): Scene | undefined {
  try {
    return new Scene(place, camera);
  } catch {
    return undefined;
  }
}

/** The model with whatever lies over it. */
export function Viewport({
  camera,
  layers,
  leftTurns,
  children,
  label,
  onPick,
}: {
  onPick?: (at: Vec2, grow: boolean) => void;
  camera: Camera;
  layers: readonly Layer[];
  leftTurns: boolean;
  children?: ReactNode;
  label: string;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const scene = useRef<Scene>(undefined);
  const turns = useRef(leftTurns);
  useEffect(() => {
    turns.current = leftTurns;
  }, [leftTurns]);
  const [isBlind, setBlind] = useState(false);
  useEffect(() => {
    const el = frame.current!;
    const made = sceneOn(el, camera);
    setBlind(!made);
    scene.current = made;
    const watch = new ResizeObserver(() => camera.resize(el.clientWidth, el.clientHeight));
    watch.observe(el);
    camera.resize(el.clientWidth, el.clientHeight);
    const leave = navigate(el, camera, () => turns.current);
    return () => {
      leave();
      watch.disconnect();
      made?.close();
      scene.current = undefined;
    };
  }, [camera]);
  // a press that does not become a drag picks
  const pressed = useRef<[number, number]>(undefined);
  useEffect(() => scene.current?.show(layers), [layers, camera]);
  return (
    <div
      ref={frame}
      className="group/bench relative h-full w-full touch-none overflow-hidden"
      role="application"
      aria-label={label}
      onPointerDown={(e) =>
        (pressed.current =
          e.button === 0 && !(e.target as Element).closest("[data-overlay]") ? [e.clientX, e.clientY] : undefined)
      }
      onPointerCancel={() => (pressed.current = undefined)}
      onPointerUp={(e) => {
        const p = pressed.current,
          box = frame.current!.getBoundingClientRect();
        if (p && Math.hypot(e.clientX - p[0], e.clientY - p[1]) < DRAG_PIXELS)
          onPick?.([e.clientX - box.left, e.clientY - box.top], e.shiftKey);
      }}
    >
      {isBlind && (
        <p role="alert" className="absolute inset-x-0 top-1/4 mx-auto max-w-sm text-center">
          This browser gives the Bench no 3D drawing (WebGL), so the solid is not shown. Sketches, Steps and Gauges
          work; closing other windows and reloading may bring it back.
        </p>
      )}
      {children}
    </div>
  );
}
