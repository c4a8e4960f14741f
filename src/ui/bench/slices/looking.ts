import { perAxis, type Vec3 } from "@/core/geometry/vector";
import { UNSEEN } from "../tolerance";
import { toSpace } from "@/core/geometry/frame";
import type { PartDocument } from "@/core/part/document";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { cornersOf } from "@/core/sketch/profile";
import type { Sketch } from "@/core/sketch/sketch";
import { sketchOf } from "../documents";
import type { BenchState } from "../state";
import { PICTORIAL, type Camera } from "../view/camera";
import { planeCorners } from "../view/datum-planes";
import { CARD_PIXELS } from "./room";

/** Where the numbers of a sketch stand. */
const numbersOf = (sketch: Sketch) => sketch.dimensions.flatMap((d) => (d.at ? [d.at] : []));

/** Where a sketch lies in the view, pixels; undefined of an empty one. */
function seenExtent(camera: Camera, sketch: Sketch) {
  const frame = frameOf(sketch.plane);
  const points = [...cornersOf(sketch), ...numbersOf(sketch)].map((p) => camera.toPixels(toSpace(frame, p)));
  if (!points.length) return undefined;
  const xs = points.map((p) => p[0]),
    ys = points.map((p) => p[1]);
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}

/** Whether all of a sketch lies in the view, clear of what lies over it. */
export function isWhollySeen(camera: Camera, sketch: Sketch): boolean {
  const e = seenExtent(camera, sketch);
  return !e || (e.left > camera.side && e.right < camera.width && e.top > 0 && e.bottom < camera.height - camera.foot);
}

/** Whether a sketch lies in the view and fills a fair part of it. */
export function isInSight(camera: Camera, sketch: Sketch): boolean {
  const e = seenExtent(camera, sketch);
  if (!e) return true;
  return isWhollySeen(camera, sketch) && Math.max(e.right - e.left, e.bottom - e.top) > 0.15 * camera.width;
}

/** The eight corners of a box. */
export const boxCorners = ({ min, max }: { min: Vec3; max: Vec3 }): [number, number, number][] =>
  [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]]);

/** Brings everything into view: the part and the sketch at work, or, while there is no solid, all sketches. */
export function fitView({ built, mode, camera }: BenchState, document: PartDocument): void {
  const box = built?.properties?.box;
  const points: Vec3[] = box ? boxCorners(box) : [];
  // the sketch at work, or, while there is no solid, all there are
  const sketches =
    mode.kind === "sketch"
      ? [sketchOf(document, mode.step)]
      : box
        ? []
        : document.steps.map((s) => (s.kind === "sketch" ? s.sketch : undefined));
  for (const sketch of sketches) {
    if (!sketch?.curves.length) continue;
    const f = frameOf(sketch.plane);
    const at = (x: number, y: number) => points.push([...perAxis((i) => f.origin[i] + f.x[i] * x + f.y[i] * y)]);
    for (const p of [...cornersOf(sketch), ...numbersOf(sketch)]) at(...p);
    at(0, 0);
  }
  // the planes to choose from are seen whole, with their names
  if (mode.kind === "plane") points.push(...planeCorners(box));
  if (points.length) camera.fit(points);
  else {
    const half = document.units === "mm" ? 60 : 76;
    camera.fit([
      [-half, -half, -half],
      [half, half, half],
    ]);
  }
}

/** A step's card lies at the left: the model is seen in the round beside it. */
export function beside(camera: Camera, fit: () => void): void {
  camera.side = CARD_PIXELS;
  const edgeOn = camera.toViewer.filter((v) => Math.abs(v) > UNSEEN).length === 1;
  if (edgeOn) camera.turnTo(PICTORIAL, fit);
  else fit();
}
