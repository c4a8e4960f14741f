import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec2, Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";
import { direction, point } from "./primitives";
import { edgePoints } from "./mesh";
import { SMOOTH } from "./tolerance";
import { distinct, explore, type Solid } from "./solid";

/** One projected edge, sampled; in the view's own coordinates, mm. */
export interface ProjectedEdge {
  readonly hidden: boolean;
  /** Where two faces go on into each other without a corner. */
  readonly tangent?: true;
  readonly points: readonly Vec2[];
}

/** A way of looking: `toViewer` points out of the paper, `right` along it. */
export interface Gaze {
  readonly toViewer: Vec3;
  readonly right: Vec3;
}

/** What a view shows beside its visible edges and outlines. */
interface Shown {
  readonly hidden?: boolean;
  readonly tangent?: boolean;
}

/**
 * Edges and outlines of a body as seen, by the library's exact hidden-line removal. Lines come as the library gives
 * them: pieces may repeat and overlap.
 */
export function projectedEdges(kernel: Kernel, solid: Solid, gaze: Gaze, shown: Shown): ProjectedEdge[] {
  return kernel.guard("drawing a view", () => {
    const oc = kernel.library;
    // faces that were merged or mirrored do not know that they go on into each other: lines would be drawn between
    oc.BRepLib.EncodeRegularity(solid.shape, SMOOTH);
    const o = point(kernel, [0, 0, 0]),
      n = direction(kernel, gaze.toViewer),
      x = direction(kernel, gaze.right);
    const axes = new oc.gp_Ax2(o, n, x);
    const projector = new oc.HLRAlgo_Projector(axes);
    const algorithm = new oc.HLRBRep_Algo();
    algorithm.Add(solid.shape, 0);
    algorithm.Projector(projector);
    algorithm.Update();
    algorithm.Hide();
    const lines = new oc.HLRBRep_HLRToShape(algorithm);
    const list: ProjectedEdge[] = [];
    const take = (compound: TopoDS_Shape | null | undefined, hidden: boolean, tangent = false) => {
      if (!compound || compound.IsNull()) return;
      oc.BRepLib.BuildCurves3d(compound);
      for (const s of explore(kernel, compound, "EDGE")) {
        const edge = oc.TopoDS.Edge(s);
        const p = edgePoints(kernel, edge, 0.1);
        const points = Array.from({ length: p.length / 3 }, (_, i): Vec2 => [p[3 * i]!, p[3 * i + 1]!]);
        list.push({ hidden, ...(tangent && { tangent }), points });
        kernel.release(edge, s);
      }
      kernel.release(compound);
    };
    take(lines.VCompound(), false);
    take(lines.OutLineVCompound(), false);
    // seams, where a face meets itself, are no edges of any kind
    if (shown.tangent) take(lines.Rg1LineVCompound(), false, true);
    if (shown.hidden) {
      take(lines.HCompound(), true);
      take(lines.OutLineHCompound(), true);
    }
    kernel.release(lines, algorithm, projector, axes, o, n, x);
    return list;
  });
}

/** Points along the edges of each face, in explorer order: what dimensions hang on. */
export function facePoints(kernel: Kernel, solid: Solid): Vec3[][] {
  return kernel.guard("reading faces", () => {
    const faces = distinct(kernel, solid.shape, "FACE");
    const all = faces.shapes.map((f) => {
      const edges = distinct(kernel, f, "EDGE");
      const points = edges.shapes.flatMap((s) => {
        const edge = kernel.library.TopoDS.Edge(s);
        const p = edgePoints(kernel, edge, 0.2);
        edge.delete();
        return Array.from({ length: p.length / 3 }, (_, i): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]);
      });
      kernel.release(...edges.shapes);
      return points;
    });
    kernel.release(...faces.shapes);
    return all;
  });
}
