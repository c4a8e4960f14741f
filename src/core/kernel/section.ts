import type { Frame } from "@/core/geometry/frame";
import { toPlane } from "@/core/geometry/frame";
import type { Vec2, Vec3 } from "@/core/geometry/vector";
import { combine } from "./boolean";
import { carrierOf } from "./carrier";
import { facesOf } from "./faces";
import { edgePoints } from "./mesh";
import type { Kernel } from "./opencascade";
import { distinct, faceShapes, type Solid } from "./solid";
import { prism } from "./sweep";

/** What a section takes away: all of a plane's rectangle, from the plane on along its normal. mm. */
export interface Cutter {
  readonly frame: Frame;
  /** In the plane: lower left and upper right. */
  readonly from: Vec2;
  readonly to: Vec2;
  readonly depth: number;
}

/** A face that a section laid open: its bounds as short straight pieces in the cutter's plane, and its area. */
export interface CutFace {
  readonly bounds: readonly (readonly [Vec2, Vec2])[];
  /** mm². */
  readonly area: number;
}

const STEP = "section";

/**
 * Takes a piece away and tells what was laid open in the cutting plane. The caller releases the solid.
 * @returns the body without the piece; its cut faces in the coordinates of the cutter's frame
 */
export function sectioned(kernel: Kernel, solid: Solid, cutter: Cutter): { solid: Solid; faces: CutFace[] } {
  const { frame, from, to, depth } = cutter;
  const corners: Vec2[] = [from, [to[0], from[1]], to, [from[0], to[1]]];
  const outer = corners.map((a, i) => ({ kind: "line" as const, curve: `s${i}`, a, b: corners[(i + 1) % 4]! }));
  const tool = prism(kernel, frame, { outer, holes: [] }, 0, depth, STEP);
  // unmerged, the cut face keeps the cutter's name
  const rest = combine(kernel, "cut", solid, [tool], false);
  kernel.release(tool.shape);
  return { solid: rest, faces: cutFaces(kernel, rest, frame) };
}

function cutFaces(kernel: Kernel, solid: Solid, frame: Frame): CutFace[] {
  return kernel.guard("reading a section", () => {
    const areas = facesOf(kernel, solid);
    return faceShapes(kernel, solid.shape).shapes.flatMap((shape, i): CutFace[] => {
      if (!solid.names[i]?.some((n) => n.step === STEP && n.role === "start")) return [];
      const face = kernel.library.TopoDS.Face(shape),
        isFlat = carrierOf(kernel, face).kind === "plane";
      face.delete();
      if (!isFlat) return [];
      const edges = distinct(kernel, shape, "EDGE");
      const bounds = edges.shapes.flatMap((s) => {
        const edge = kernel.library.TopoDS.Edge(s),
          p = edgePoints(kernel, edge, FINE);
        edge.delete();
        const points = Array.from({ length: p.length / 3 }, (_, k) =>
          toPlane(frame, [p[3 * k]!, p[3 * k + 1]!, p[3 * k + 2]!] as Vec3),
        );
        return points.slice(1).map((q, k) => [points[k]!, q] as const);
      });
      kernel.release(...edges.shapes);
      return [{ bounds, area: areas[i]!.area }];
    });
  });
}
/** Bounds are followed this closely, radians. */
const FINE = 0.05;
