"use client";

import { toSpace, type Frame } from "@/core/geometry/frame";
import type { Vec2 } from "@/core/geometry/vector";
import { quantityOf, type Sketch } from "@/core/sketch/sketch";
import { measureDimension } from "@/core/sketch/solve";
import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";
import type { NewDimension, Preview } from "../tools/tool";
import type { Camera } from "../view/camera";
import { curvePath, screenPath, segmentPath } from "./curve-ink";
import { dimensionGraphic } from "./dimension-graphic";

/** What the tool at work would do: curves to come in rust, what would go struck through, places found marked. */
export function PreviewInk({
  preview,
  sketch,
  camera,
  frame,
  unit,
}: {
  preview: Preview;
  sketch: Sketch;
  camera: Camera;
  frame: Frame;
  unit: LengthUnit;
}) {
  const px = (p: Vec2): Vec2 => camera.toPixels(toSpace(frame, p));
  const graphic = preview.dimension && dimensionGraphic(sketch, preview.dimension, 1 / camera.scale);
  const box = preview.box?.map(px) as [Vec2, Vec2] | undefined,
    mark = preview.mark && px(preview.mark.at);
  return (
    <>
      {preview.curves?.map((c) =>
        c.kind === "point" ? (
          <circle
            key={c.id}
            cx={px(c.at)[0]}
            cy={px(c.at)[1]}
            r={4}
            fill="none"
            stroke="var(--color-accent)"
            strokeWidth={1.8}
          />
        ) : (
          <path
            key={c.id}
            data-preview
            d={curvePath(camera, frame, c)}
            stroke="var(--color-accent)"
            strokeWidth={c.construction ? 1 : 1.8}
            strokeDasharray={c.construction ? "6 4" : undefined}
            fill="none"
          />
        ),
      )}
      {preview.gone?.map((s, i) => (
        <path
          key={i}
          data-gone
          d={segmentPath(camera, frame, s)}
          stroke="var(--color-accent)"
          strokeWidth={7}
          strokeDasharray="3 5"
          opacity={0.8}
          fill="none"
        />
      ))}
      {mark && (
        <g data-testid="found">
          <circle cx={mark[0]} cy={mark[1]} r={6} fill="none" stroke="var(--color-accent)" strokeWidth={2} />
          <text
            x={mark[0] + 11}
            y={mark[1] + 18}
            fontSize={11}
            fill="var(--color-accent)"
            stroke="var(--color-base-100)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {preview.mark.label}
          </text>
        </g>
      )}
      {box && (
        <rect
          x={Math.min(box[0][0], box[1][0])}
          y={Math.min(box[0][1], box[1][1])}
          width={Math.abs(box[0][0] - box[1][0])}
          height={Math.abs(box[0][1] - box[1][1])}
          fill="var(--color-accent)"
          fillOpacity={0.08}
          stroke="var(--color-accent)"
          strokeDasharray="4 3"
        />
      )}
      {graphic?.lines.map((l, i) => (
        <path
          key={i}
          data-meant={preview.dimension!.kind}
          d={screenPath(camera, frame, l)}
          stroke="var(--color-accent)"
          fill="none"
          strokeDasharray="4 3"
        />
      ))}
      {preview.dimension?.at && (
        <text
          data-number-meant
          x={px(preview.dimension.at)[0]}
          y={px(preview.dimension.at)[1] - 5}
          fontSize={13}
          textAnchor="middle"
          className="figures"
          fill="var(--color-accent)"
          stroke="var(--color-base-100)"
          strokeWidth={4}
          paintOrder="stroke"
        >
          {numberText(sketch, preview.dimension, unit)}
        </text>
      )}
    </>
  );
}

const SIGNS: Partial<Record<NewDimension["kind"], string>> = { diameter: "⌀", across: "⌀", radius: "R " };

/** The number as it would stand: with the sign that tells a diameter from a distance. */
function numberText(sketch: Sketch, d: NewDimension, unit: LengthUnit): string {
  const value = measureDimension(sketch, d);
  return `${SIGNS[d.kind] ?? ""}${quantityOf(d) === "angle" ? angleText(value) : lengthText(value, unit, false)}`;
}
