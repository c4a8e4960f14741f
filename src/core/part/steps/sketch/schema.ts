import { DATUM_FRAMES, offsetFrame, tiltedFrame, type Frame } from "@/core/geometry/frame";
import { stepFields, stepKind } from "../fields";
import { z } from "zod";
import { SketchSchema, type Plane } from "@/core/sketch/sketch";

const SketchStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("sketch"),
  sketch: SketchSchema,
});
export type SketchStep = z.infer<typeof SketchStepSchema>;

/** The frame a sketch lies in, mm: of one on a face, where the face was found last. */
export function frameOf(plane: Plane): Frame {
  if (!("base" in plane)) return plane.frame;
  const moved = offsetFrame(DATUM_FRAMES[plane.base], plane.offset ?? 0);
  return plane.tilt ? tiltedFrame(moved, plane.tilt.about, (plane.tilt.angle * Math.PI) / 180) : moved;
}

/** How a plane reads: "front", "top (offset)", "a face". */
export const planeText = (plane: Plane): string =>
  "face" in plane
    ? "a face"
    : "datum" in plane
      ? plane.datum
      : `${plane.base}${plane.offset ? " (offset)" : ""}${plane.tilt ? " (tilted)" : ""}`;

export const sketchKind = stepKind({
  schema: SketchStepSchema,
  read(step) {
    const n = step.sketch.curves.length;
    return { title: `Sketch on ${planeText(step.sketch.plane)}`, detail: `${n} curve${n === 1 ? "" : "s"}` };
  },
});
