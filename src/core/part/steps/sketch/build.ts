import { faceText } from "../../reference/text";
import { refuseLost } from "../step";
import { frameOf } from "./schema";
import { faceFrame, type Frame } from "@/core/geometry/frame";
import type { Edge } from "@/core/kernel/edges";
import { modelOf } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { sectionOf, silhouettesOf } from "@/core/kernel/profile";
import type { Solid } from "@/core/kernel/solid";
import { conflictSentence } from "@/core/sketch/sentences";
import { findRegions } from "@/core/sketch/regions";
import { type Plane, type Sketch } from "@/core/sketch/sketch";
import { solveSketch } from "@/core/sketch/solve";
import { wordsFor } from "@/core/sketch/words";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { findEdge, findFace } from "../../reference/find";
import { planeOf } from "../../reference/resolve";
import { type BuildContext, type Build } from "../step";
import { pictureOf } from "./picture";
import type { SketchStep } from "./schema";

/** Where the plane stands on the part built so far. */
function planeNow(context: BuildContext, plane: Plane): Outcome<Plane> {
  if ("base" in plane) return done(plane);
  if ("datum" in plane) {
    const frame = planeOf(context, { datum: plane.datum });
    return frame.ok ? done({ ...plane, frame: own(frame.value) }) : frame;
  }
  const t = context.topology();
  if (!t) return refuse("lost-face", "The part this sketch stands on is not there. Choose another plane for it.", []);
  const found = findFace(t, plane),
    carrier = found.ok ? t.carrier(found.value) : undefined;
  if (carrier?.kind !== "plane") {
    const sentence =
      `The face this sketch lies on (${faceText(plane)}) is no longer there, or no longer flat. ` +
      "Choose another plane for it.";
    return refuseLost("lost-face", [{ ref: plane, sentence }], []);
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
  for (const curve of next.curves) {
    const { projected } = curve,
      found = curve.was && findEdge(t, curve.was);
    if (projected === undefined) {
      curves.push(curve);
      continue;
    }
    // by its reference; sections and outlines, and edges named by hand, by their key
    const edge = found
      ? found.ok
        ? { key: projected, ...t.edge(found.value) }
        : undefined
      : (byKey ??= new Map(picturables(context.kernel, t.solid, frame).map((e) => [e.key, e]))).get(projected);
    if (!edge) {
      const isSplit = found && !found.ok && found.refusal.sentence.includes("pieces");
      const now = isSplit ? "has come apart, and which piece was meant is not clear" : "is no longer there";
      const call = wordsFor(sketch, context.unit)(curve.id);
      const sentence = `The edge that ${call} is the picture of ${now}. Delete the picture, or project another edge.`;
      return curve.was
        ? refuseLost("lost-edge", [{ ref: curve.was, sentence }], [curve.id])
        : refuse("lost-edge", sentence, [curve.id]);
    }
    const picture = pictureOf(edge, frame, curve.id);
    curves.push(picture ? { ...picture, ...(curve.was && { was: curve.was }) } : curve);
  }
  return done({ ...next, curves });
}
/**
 * All of a part that a sketch in a frame can show: its edges, the outlines of its round faces, and where the plane
 * cuts it.
 */
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

export const buildSketch: Build<SketchStep> = (context, step) => {
  const { unit } = context,
    at = placed(context, step.sketch);
  if (!at.ok) return at;
  const solved = solveSketch({ ...at.value, given: [...context.given] }, unit);
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
};
