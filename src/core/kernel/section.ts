import { toSpace, type Frame } from "@/core/geometry/frame";
import type { Vec2, Vec3 } from "@/core/geometry/vector";
import { combine } from "./boolean";
import { carrierOf } from "./recognise";
import { facesOf } from "./faces";
import { edgePoints } from "./mesh";
import type { Kernel } from "./opencascade";
import { distinct, faceShapes, type Solid } from "./solid";
import { prism } from "./sweep";

/** What a section takes away: a prism over an outline in a plane, from `from` to `to` along its normal. mm. */
export interface Cutter {
  readonly frame: Frame;
  readonly outline: readonly Vec2[];
  readonly from: number;
  readonly to: number;
  /** What it lays open: the plane it starts at, or sides of the outline by the place of their first corner. */
  readonly opens: "start" | readonly number[];
}

/** A face that a section laid open: its edges as lines of points in space, and its area. */
interface CutFace {
  readonly edges: readonly (readonly Vec3[])[];
  /** mm². */
  readonly area: number;
}

const STEP = "section";
const sideOf = (i: number): string => `s${i}`;

/**
 * Takes pieces away and tells what was laid open. The caller releases the solid.
 * @returns the body without the pieces; its cut faces
 */
export function sectioned(
  kernel: Kernel,
  solid: Solid,
  cutters: readonly Cutter[],
): { solid: Solid; faces: CutFace[] } {
  const tools = cutters.map(({ frame, outline, from, to }, n) => {
    const outer = outline.map((a, i) => ({
      kind: "line" as const,
      curve: sideOf(i),
      a,
      b: outline[(i + 1) % outline.length]!,
    }));
    return prism(kernel, frame, { outer, holes: [] }, from, to, `${STEP}${n}`);
  });
  // unmerged, the cut faces keep the cutters' names
  const rest = combine(kernel, "cut", solid, tools, false);
  for (const t of tools) kernel.release(t.shape);
  return { solid: rest, faces: cutFaces(kernel, rest, cutters) };
}

function cutFaces(kernel: Kernel, solid: Solid, cutters: readonly Cutter[]): CutFace[] {
  return kernel.guard("reading a section", () => {
    const areas = facesOf(kernel, solid);
    return faceShapes(kernel, solid.shape).shapes.flatMap((shape, i): CutFace[] => {
      const isOpened = solid.names[i]?.some((n) =>
        cutters.some(({ opens }, k) => {
          if (n.step !== `${STEP}${k}`) return false;
          return opens === "start" ? n.role === "start" : n.role === "side" && opens.some((s) => n.of === sideOf(s));
        }),
      );
      if (!isOpened) return [];
      const face = kernel.library.TopoDS.Face(shape),
        isFlat = carrierOf(kernel, face).kind === "plane";
      face.delete();
      if (!isFlat) return [];
      const edges = distinct(kernel, shape, "EDGE");
      const lines = edges.shapes.map((s) => {
        const edge = kernel.library.TopoDS.Edge(s),
          p = edgePoints(kernel, edge, FINE);
        edge.delete();
        return Array.from({ length: p.length / 3 }, (_, k): Vec3 => [p[3 * k]!, p[3 * k + 1]!, p[3 * k + 2]!]);
      });
      kernel.release(...edges.shapes);
      return [{ edges: lines, area: areas[i]!.area }];
    });
  });
}
/** Bounds are followed this closely, radians. */
const FINE = 0.05;

/** All of a plane's rectangle, from the plane on along its normal: a plain full section. mm. */
export const halfSpace = (frame: Frame, from: Vec2, to: Vec2, depth: number): Cutter => ({
  frame,
  outline: [from, [to[0], from[1]], to, [from[0], to[1]]],
  from: 0,
  to: depth,
  opens: "start",
});

/** A point that a section's plane goes through, in space. */
export const onCut = ({ frame, outline, from, opens }: Cutter): Vec3 =>
  opens === "start" ? toSpace(frame, [0, 0], from) : toSpace(frame, outline[opens[0] ?? 0]!);
