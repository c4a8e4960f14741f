"use client";

import { toSpace, type Frame } from "@/core/geometry/frame";
import type { Vec2 } from "@/core/geometry/vector";
import type { findRegions } from "@/core/sketch/regions";
import type { Curve, Sketch } from "@/core/sketch/sketch";
import { wordsFor } from "@/core/sketch/words";
import { lengthText, type LengthUnit } from "@/core/units/quantity";
import type { Camera } from "../view/camera";
import { curvePath, screenPath } from "./curve-ink";

/** So far the axes are drawn from the origin, mm. */
const REACH = 4000;
const AXES: readonly (readonly [ref: string, from: Vec2, to: Vec2])[] = [
  ["x-axis", [-REACH, 0], [REACH, 0]],
  ["y-axis", [0, -REACH], [0, REACH]],
];

/** The axes and the origin of a sketch. @param lit axes to stand out @param strong the origin is picked */
export function Axes({
  camera,
  frame,
  lit,
  strong,
}: {
  camera: Camera;
  frame: Frame;
  lit: (ref: string) => boolean;
  strong: boolean;
}) {
  const [x, y] = camera.toPixels(toSpace(frame, [0, 0]));
  return (
    <>
      {AXES.map(([ref, from, to]) => (
        <path
          key={ref}
          d={screenPath(camera, frame, [from, to])}
          stroke={lit(ref) ? "var(--color-accent)" : "var(--color-secondary)"}
          strokeDasharray="14 3 3 3"
          strokeWidth={0.9}
        />
      ))}
      <path
        data-point="origin"
        d={`M${x - 5} ${y}h10M${x} ${y - 5}v10`}
        stroke="currentColor"
        strokeWidth={strong ? 3 : 1.4}
      />
    </>
  );
}

/** Handles of a spline hang on its ends by thin lines. */
export function Handles({ curve, px }: { curve: Curve; px: (p: Vec2) => Vec2 }) {
  if (curve.kind !== "spline") return null;
  const ends = [
    [curve.through[0]!, curve.startHandle],
    [curve.through[curve.through.length - 1]!, curve.endHandle],
  ] as const;
  return (
    <>
      {ends.map(
        ([a, h], i) =>
          h && (
            <path
              key={i}
              d={`M${px(a).join(" ")}L${px(h).join(" ")}`}
              stroke="var(--color-secondary)"
              strokeWidth={1}
              strokeDasharray="2 3"
              fill="none"
            />
          ),
      )}
    </>
  );
}

/** An end that meets nothing, ringed. */
export function OpenEnd({
  gap: { curve, nearest },
  at,
  sketch,
  unit,
}: {
  gap: ReturnType<typeof findRegions>["gaps"][number];
  at: Vec2;
  sketch: Sketch;
  unit: LengthUnit;
}) {
  return (
    <circle
      cx={at[0]}
      cy={at[1]}
      r={10}
      fill="none"
      stroke="var(--color-accent)"
      strokeDasharray="3 3"
      strokeWidth={1.5}
    >
      <title>
        This end of {wordsFor(sketch, unit)(curve)} meets nothing
        {nearest ? `; the next end is ${lengthText(nearest.distance, unit)} away` : ""}.
      </title>
    </circle>
  );
}

/** The curve under the pointer. */
export function HoverInk({ camera, frame, curve }: { camera: Camera; frame: Frame; curve: Curve | undefined }) {
  if (!curve) return null;
  const d = curvePath(camera, frame, curve);
  return <path d={d} stroke="var(--color-accent)" strokeWidth={9} opacity={0.2} fill="none" />;
}
