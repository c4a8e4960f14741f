"use client";

import { useEffect, useState } from "react";
import { toSpace, type Frame } from "@/core/geometry/frame";
import { dot3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { screenPath } from "../sketch/curve-ink";
import type { PlaneShift } from "../state";
import type { BenchStore } from "../store";
import type { Camera } from "./camera";
import { cornersOf, DATUM_PLANES, halfFor, NAMED, type Base } from "./datum-planes";
import { useCamera } from "./viewport";

/** The datum plane drawn under a pixel; of several the one nearest to the eye. */
export function planeAt(
  camera: Camera,
  shift: PlaneShift,
  box: { readonly min: Vec3; readonly max: Vec3 } | undefined,
  at: Vec2,
): Base | undefined {
  const half = halfFor(box);
  const hits = DATUM_PLANES.flatMap(([base]) => {
    const frame = frameOf({ base, ...shift }),
      p = camera.onPlane(frame, at);
    if (!p || Math.abs(p[0]) > half || Math.abs(p[1]) > half) return [];
    return [{ base, near: dot3(toSpace(frame, p), camera.toViewer) }];
  });
  return hits.sort((a, b) => b.near - a.near)[0]?.base;
}

/**
 * While a plane is chosen: the three datum planes, where the card moves and tilts them, named and lit under the
 * pointer.
 */
export function PlaneLayer({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const shift = store((s) => s.planeShift),
    box = store((s) => s.built?.properties?.box);
  const [hover, setHover] = useState<Base>();
  useEffect(() => {
    const move = (e: PointerEvent) => {
      const target = e.target as Element,
        model = target.closest?.("[aria-label=Model]");
      if (!model || target.closest("[data-overlay]") || e.buttons) return setHover(undefined);
      const { left, top } = model.getBoundingClientRect();
      setHover(planeAt(camera, shift, box, [e.clientX - left, e.clientY - top]));
    };
    window.addEventListener("pointermove", move);
    return () => window.removeEventListener("pointermove", move);
  }, [camera, shift, box]);
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" data-testid="planes">
      {DATUM_PLANES.map(([base]) => (
        <PlaneInk
          key={base}
          camera={camera}
          name={base}
          frame={frameOf({ base, ...shift })}
          half={halfFor(box)}
          lit={hover === base}
        />
      ))}
    </svg>
  );
}

function PlaneInk({
  camera,
  name,
  frame,
  half,
  lit,
}: {
  camera: Camera;
  name: Base;
  frame: Frame;
  half: number;
  lit: boolean;
}) {
  const ink = lit ? "var(--color-accent)" : "var(--color-primary)";
  const [x, y] = camera.toPixels(toSpace(frame, [NAMED[name][0] * half, NAMED[name][1] * half]));
  return (
    <g data-datum={name} data-lit={lit || undefined}>
      <path
        d={screenPath(camera, frame, cornersOf(half), true)}
        fill={ink}
        fillOpacity={lit ? 0.2 : 0.06}
        stroke={ink}
        strokeWidth={lit ? 2 : 1}
      />
      <text x={x} y={y} fontSize={13} fontWeight={600} fill={ink}>
        {name}
      </text>
    </g>
  );
}
