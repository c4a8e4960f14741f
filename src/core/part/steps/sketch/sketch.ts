import { z } from "zod";
import { DATUM_FRAMES, faceFrame, offsetFrame, tiltedFrame, type Frame } from "@/core/geometry/frame";
import type { Edge } from "@/core/kernel/edges";
import { modelOf } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { sectionOf, silhouettesOf } from "@/core/kernel/profile";
import type { Solid } from "@/core/kernel/solid";
import { conflictSentence } from "@/core/sketch/sentences";
import { findRegions } from "@/core/sketch/regions";
import { SketchSchema, type Plane, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { findEdge, findFace } from "../../reference/find";
import { planeOf } from "../../reference/resolve";
import { stepFields, type BuildContext, type StepKind } from "../step";
import { pictureOf } from "./picture";

export const SketchStepSchema = z.strictObject({
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

/** Where the plane stands on the part built so far. */
function planeNow(context: BuildContext, plane: Plane): Outcome<Plane> {
  if ("base" in plane) return done(plane);
  if ("datum" in plane) {
    const frame = planeOf(context, { datum: plane.datum });
    return frame.ok ? done({ ...plane, frame: own(frame.value) }) : frame;
  }
  const t = context.topology();
  if (!t) return refuse("lost-face", "The part this sketch stands on is not there. Choose another plane for it.", []);
  const { frame: _, ...ref } = plane,
    found = findFace(t, ref),
    carrier = found.ok ? t.carrier(found.value) : undefined;
  if (carrier?.kind !== "plane") {
    const sentence = `The face this sketch lies on (${plane.face}) is no longer there, or no longer flat. Choose another plane for it.`;
    return {
      ok: false,
      refusal: {
        ...refuse("lost-face", sentence, []).refusal,
        lost: [{ path: "sketch.plane", ref, sentence }],
      } as never,
    };
  }
  return done({ ...plane, frame: own(faceFrame(carrier.normal, carrier.offset)) });
}

/** The sketch as it stands on the part built so far: its plane found by its face, its pictures of edges drawn anew. */
function placed(context: BuildContext, sketch: Sketch): Outcome<Sketch> {
  const plane = planeNow(context, sketch.plane);
  if (!plane.ok) return plane;
  const next = plane.value === sketch.plane ? sketch : { ...sketch, plane: plane.value };
  if (!next.curves.some((c) => c.projected)) return done(next);
  const t = context.topology();
  if (!t) return refuse("lost-edge", "The part this sketch shows edges of is not there.", []);
  const frame = frameOf(next.plane),
    curves: Sketch["curves"] = [];
  let byKey: ReadonlyMap<string, Edge> | undefined;
  for (const [i, c] of next.curves.entries()) {
    const { projected } = c,
      found = c.was && findEdge(t, c.was);
    if (projected === undefined) {
      curves.push(c);
      continue;
    }
    // by its reference; sections and outlines, and edges named by hand, by their key
    const edge = found
      ? found.ok
        ? { key: projected, ...t.edge(found.value) }
        : undefined
      : (byKey ??= new Map(picturables(context.kernel, t.solid, frame).map((e) => [e.key, e]))).get(projected);
    if (!edge) {
      const sentence = `The edge that ${c.id} is the picture of ${found && !found.ok && /pieces/.test(found.refusal.sentence) ? "has come apart, and which piece was meant is not clear" : "is no longer there"}. Delete ${c.id}, or project another edge.`;
      const lost = c.was ? [{ path: `sketch.curves.${i}.was`, ref: c.was, sentence }] : undefined;
      return {
        ok: false,
        refusal: { ...refuse("lost-edge", sentence, [c.id]).refusal, ...(lost && { lost }) } as never,
      };
    }
    const picture = pictureOf(edge, frame, c.id);
    curves.push(picture ? { ...picture, ...(c.was && { was: c.was }) } : c);
  }
  return done({ ...next, curves });
}
/** All of a part that a sketch in a frame can show: its edges, the outlines of its round faces, and where the plane cuts it. */
export function picturables(
  kernel: Kernel,
  body: Solid,
  frame: Frame,
  edges: readonly Edge[] = modelOf(kernel, body).edges,
): Edge[] {
  return [...edges, ...silhouettesOf(kernel, body, edges, frame), ...sectionOf(kernel, body, frame)];
}
const own = (f: Frame) => ({
  origin: [...f.origin] as [number, number, number],
  x: [...f.x] as [number, number, number],
  y: [...f.y] as [number, number, number],
});

export const sketchStep: StepKind<SketchStep> = {
  schema: SketchStepSchema,
  // the steps that made the faces it lies on or shows the edges of
  uses: ({ sketch }) => [
    ...new Set(
      [
        ...("face" in sketch.plane ? [sketch.plane.face] : "datum" in sketch.plane ? [sketch.plane.datum] : []),
        ...sketch.curves.flatMap((c) => c.projected?.replace(/^(section|silhouette)\//, "").split("|") ?? []),
      ].map((key) => key.split("/")[0]!),
    ),
  ],
  build(context, step) {
    const { unit } = context,
      at = placed(context, step.sketch);
    if (!at.ok) return at;
    const solved = solveSketch(at.value, unit);
    if (!solved.ok) return solved;
    if (!solved.value.solved)
      return refuse("conflict", conflictSentence(at.value, solved.value.conflict, unit), solved.value.conflict);
    return done({
      sketch: {
        frame: frameOf(at.value.plane),
        placed: at.value,
        diagnosis: solved.value,
        regions: findRegions(solved.value.sketch),
      },
    });
  },
  read(step) {
    const n = step.sketch.curves.length;
    return { title: `Sketch on ${planeText(step.sketch.plane)}`, detail: `${n} curve${n === 1 ? "" : "s"}` };
  },
};
