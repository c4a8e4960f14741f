"use client";

import { UNSEEN } from "../tolerance";
import { unit3, vec3 } from "@/core/geometry/vector";
import type { Camera, Look } from "./camera";

type Six = "front" | "back" | "left" | "right" | "top" | "under";

export const LOOKS: Record<Six, Look> = {
  front: { toViewer: [0, -1, 0], right: [1, 0, 0] },
  back: { toViewer: [0, 1, 0], right: [-1, 0, 0] },
  left: { toViewer: [-1, 0, 0], right: [0, -1, 0] },
  right: { toViewer: [1, 0, 0], right: [0, 1, 0] },
  top: { toViewer: [0, 0, 1], right: [1, 0, 0] },
  under: { toViewer: [0, 0, -1], right: [1, 0, 0] },
};

const corner = (x: number, y: number, z: number): Look => ({
  toViewer: unit3([x, y, z]),
  right: unit3(vec3(-y, x, 0)),
});
/** The six views laid out as the Sheet's projection lays them out, with the eight corners around. */
export function UnfoldedBox({
  camera,
  projection,
  current,
}: {
  camera: Camera;
  projection: "first-angle" | "third-angle";
  current: number;
}) {
  void current;
  const third = projection === "third-angle";
  // columns of the middle row; above and below the front stand top and under, as projected
  const middle: Six[] = third ? ["left", "front", "right", "back"] : ["right", "front", "left", "back"];
  const above: Six = third ? "top" : "under",
    below: Six = third ? "under" : "top";
  const W = 42,
    H = 22,
    M = 1;
  const cell = (name: Six, col: number, row: number) => {
    const here = LOOKS[name].toViewer.every((v, i) => Math.abs(v - camera.toViewer[i]!) < UNSEEN);
    return (
      <g
        key={name}
        role="button"
        tabIndex={0}
        aria-label={`View from ${name}`}
        className="cursor-pointer"
        onClick={() => camera.turnTo(LOOKS[name])}
        onKeyDown={(e) => e.key === "Enter" && camera.turnTo(LOOKS[name])}
      >
        <rect
          x={M + col * W}
          y={M + row * H}
          width={W}
          height={H}
          fill={here ? "var(--rust-wash)" : "var(--color-base-100)"}
          stroke={here ? "var(--color-accent)" : "var(--color-secondary)"}
          strokeWidth={here ? 1.4 : 0.7}
        />
        <text x={M + col * W + W / 2} y={M + row * H + 14.5} textAnchor="middle" fontSize={10} fill="currentColor">
          {name}
        </text>
      </g>
    );
  };
  // seen from above: the two upper rows of corners beside the view from above, the lower ones beside the view from
  // under
  const dots = (row: number, z: number) =>
    (
      [
        [-1, -1, 0.25],
        [-1, 1, 0.75],
        [1, -1, 2.25],
        [1, 1, 2.75],
      ] as const
    ).map(([x, y, col]) => {
      const look = corner(x, y, z);
      const here = look.toViewer.every((v, i) => Math.abs(v - camera.toViewer[i]!) < UNSEEN);
      const cx = M + col * W,
        cy = M + row * H + H / 2;
      const place = `${y < 0 ? "front" : "back"} ${x < 0 ? "left" : "right"}`;
      return (
        <g
          key={`${x}${y}${z}`}
          role="button"
          tabIndex={0}
          aria-label={`Pictorial view from the ${place}, ${z > 0 ? "above" : "below"}`}
          className="cursor-pointer"
          onClick={() => camera.turnTo(look)}
          onKeyDown={(e) => e.key === "Enter" && camera.turnTo(look)}
        >
          <rect x={cx - 10} y={cy - 10} width={20} height={20} fill="transparent" />
          <path
            d={`M${cx - 6} ${cy + (z > 0 ? 4 : -4)}h12l${-6} ${z > 0 ? -9 : 9}z`}
            fill={here ? "var(--color-accent)" : "var(--color-base-100)"}
            stroke={here ? "var(--color-accent)" : "var(--color-secondary)"}
          />
        </g>
      );
    });
  return (
    <svg width={4 * W + 2} height={3 * H + 2} className="select-none" aria-label="Views">
      {dots(third ? 0 : 2, 1)}
      {dots(third ? 2 : 0, -1)}
      {cell(above, 1, 0)}
      {middle.map((m, i) => cell(m, i, 1))}
      {cell(below, 1, 2)}
    </svg>
  );
}
