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
import { CARD_PIXELS } from "./room";

/** Where the numbers of a sketch stand. */
const numbersOf = (sketch: Sketch) => sketch.dimensions.flatMap((d) => (d.at ? [d.at] : []));

/** Whether a sketch lies in the view and fills a fair part of it. */
export function isInSight(camera: Camera, sketch: Sketch): boolean {
  const frame = frameOf(sketch.plane);
  const points = [...cornersOf(sketch), ...numbersOf(sketch)].map((p) => camera.toPixels(toSpace(frame, p)));
  if (!points.length) return true;
  const xs = points.map((p) => p[0]),
    ys = points.map((p) => p[1]);
  const inside =
    Math.min(...xs) > camera.side &&
    Math.max(...xs) < camera.width &&
    Math.min(...ys) > 0 &&
    Math.max(...ys) < camera.height - camera.foot;
  return inside && Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) > 0.15 * camera.width;
}

/** The eight corners of a box. */
export const boxCorners = ({ min, max }: { min: Vec3; max: Vec3 }): [number, number, number][] =>
  [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]]);

/** Brings everything into view: the part and the sketch at work, or, while there is no solid, all sketches. */
export function fitView({ built, mode, camera }: BenchState, document: PartDocument): void {
  const box = built?.properties?.box;
  const points = box ? boxCorners(box) : [];
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
