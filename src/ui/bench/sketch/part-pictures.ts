import { facesOfPicture, parsePicture } from "@/core/naming/names";
import { toSpace } from "@/core/geometry/frame";
import type { Vec2 } from "@/core/geometry/vector";
import type { Edge } from "@/core/kernel/edges";
import { pictureOf } from "@/core/part/steps/sketch/picture";
import { edgeRef } from "@/core/part/reference/make";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { idsFor, LETTER } from "@/core/sketch/edit/rewire";
import type { Curve } from "@/core/sketch/sketch";
import { sketchOf, type BenchStore } from "../store";
import type { PartPick } from "../tools/tool";
import { faceAt, lineAt } from "../view/pick";

const EDGE_PIXELS = 7;
/**
 * Curves that show the part's edge under a place of the sketch, or all edges of the face there with its outline where
 * it is round; those already shown are left out.
 */
export function picturesAt(store: BenchStore, step: string, at: Vec2, what: PartPick): Curve[] {
  const { built, camera, history } = store.getState(),
    sketch = sketchOf(history.present, step);
  if (!sketch || !built?.mesh) return [];
  const frame = frameOf(sketch.plane),
    pixel = camera.toPixels(toSpace(frame, at));
  const whole = what === "face",
    isSection = (e: Edge) => parsePicture(e.key).kind === "section";
  const single = built.edges.filter((e) => !isSection(e));
  const face = whole ? built.model?.faces[faceAt(camera, { mesh: built.mesh }, pixel) ?? -1]?.key : undefined;
  const one =
    what === "edge"
      ? single[
          lineAt(
            camera,
            single.map((e) => e.points),
            pixel,
            EDGE_PIXELS,
          ) ?? -1
        ]
      : undefined;
  const edges =
    what === "section"
      ? built.edges.filter(isSection)
      : face
        ? single.filter((e) => facesOfPicture(e.key).some((f) => f === face))
        : one
          ? [one]
          : [];
  const known = new Set(sketch.curves.map((c) => c.projected)),
    ids = idsFor(sketch);
  return edges
    .filter((e) => !known.has(e.key))
    .flatMap((e) => {
      const picture = pictureOf(e, frame, "picture"),
        place = built.model?.edges.findIndex((m) => m.key === e.key) ?? -1,
        was = place < 0 ? undefined : edgeRef(built.model!, place);
      return picture ? [{ ...picture, id: ids(LETTER[picture.kind]), ...(was && { was }) }] : [];
    });
}
