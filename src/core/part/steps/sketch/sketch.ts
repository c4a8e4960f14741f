import { z } from "zod";
import { DATUM_FRAMES, faceFrame, offsetFrame, tiltedFrame, type Frame } from "@/core/geometry/frame";
import { edgesOf, type Edge } from "@/core/kernel/edges";
import type { Kernel } from "@/core/kernel/opencascade";
import { sectionOf, silhouettesOf } from "@/core/kernel/profile";
import { facesOf } from "@/core/kernel/faces";
import { faceKey, type Solid } from "@/core/kernel/solid";
import { conflictSentence } from "@/core/sketch/sentences";
import { findRegions } from "@/core/sketch/regions";
import { SketchSchema, type Plane, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { pictureOf } from "./picture";
import type { BuildContext, StepKind } from "../step";

export const SketchStepSchema = z.strictObject({
  id: z.string(), kind: z.literal("sketch"), name: z.string().max(80).optional(), suppressed: z.boolean().optional(),
  sketch: SketchSchema,
});
export type SketchStep = z.infer<typeof SketchStepSchema>;

/** The frame a sketch lies in, mm: of one on a face, where the face was found last. */
export function frameOf(plane: Plane): Frame {
  if ("face" in plane) return plane.frame;
  const moved = offsetFrame(DATUM_FRAMES[plane.base], plane.offset ?? 0);
  return plane.tilt ? tiltedFrame(moved, plane.tilt.about, (plane.tilt.angle * Math.PI) / 180) : moved;
}

/** How a plane reads: "front", "top (offset)", "a face". */
export const planeText = (plane: Plane): string => ("face" in plane ? "a face" : `${plane.base}${plane.offset ? " (offset)" : ""}${plane.tilt ? " (tilted)" : ""}`);

/** The sketch as it stands on the part built so far: its plane found by its face, its pictures of edges drawn anew. */
function placed({ kernel, body }: BuildContext, sketch: Sketch): Outcome<Sketch> {
  const { plane } = sketch;
  const needs = "face" in plane || sketch.curves.some((c) => c.projected);
  if (!needs) return done(sketch);
  if (!body) return refuse("lost-face", "The part this sketch stands on is not there. Choose another plane for it.", []);
  let next = sketch;
  if ("face" in plane) {
    const face = facesOf(kernel, body).find((f) => f.key === plane.face || f.names.some((n) => faceKey(n) === plane.face));
    if (face?.carrier.kind !== "plane") return refuse("lost-face", `The face this sketch lies on (${plane.face}) is no longer there, or no longer flat. Choose another plane for it.`, []);
    next = { ...next, plane: { face: plane.face, frame: own(faceFrame(face.carrier.normal, face.carrier.offset)) } };
  }
  if (!next.curves.some((c) => c.projected)) return done(next);
  const edges = picturables(kernel, body, frameOf(next.plane)), frame = frameOf(next.plane);
  const lost = next.curves.find((c) => c.projected && !edges.some((e) => e.key === c.projected));
  if (lost) return refuse("lost-edge", `The edge that ${lost.id} is the picture of is no longer there. Delete ${lost.id}, or project another edge.`, [lost.id]);
  return done({ ...next, curves: next.curves.map((c) => (c.projected ? (pictureOf(edges.find((e) => e.key === c.projected)!, frame, c.id) ?? c) : c)) });
}
/** All of a part that a sketch in a frame can show: its edges, the outlines of its round faces, and where the plane cuts it. */
export function picturables(kernel: Kernel, body: Solid, frame: Frame): Edge[] {
  const edges = edgesOf(kernel, body);
  return [...edges, ...silhouettesOf(kernel, body, edges, frame), ...sectionOf(kernel, body, frame)];
}
const own = (f: Frame) => ({ origin: [...f.origin] as [number, number, number], x: [...f.x] as [number, number, number], y: [...f.y] as [number, number, number] });

export const sketchStep: StepKind<SketchStep> = {
  schema: SketchStepSchema,
  // the steps that made the faces it lies on or shows the edges of
  uses: ({ sketch }) => [...new Set([...("face" in sketch.plane ? [sketch.plane.face] : []), ...sketch.curves.flatMap((c) => c.projected?.replace(/^(section|silhouette)\//, "").split("|") ?? [])].map((key) => key.split("/")[0]!))],
  build(context, step) {
    const { unit } = context, at = placed(context, step.sketch);
    if (!at.ok) return at;
    const solved = solveSketch(at.value, unit);
    if (!solved.ok) return solved;
    if (!solved.value.solved) return refuse("conflict", conflictSentence(at.value, solved.value.conflict, unit), solved.value.conflict);
    return done({ sketch: { frame: frameOf(at.value.plane), placed: at.value, diagnosis: solved.value, regions: findRegions(solved.value.sketch) } });
  },
  read(step) {
    const n = step.sketch.curves.length;
    return { title: `Sketch on ${planeText(step.sketch.plane)}`, detail: `${n} curve${n === 1 ? "" : "s"}` };
  },
};
