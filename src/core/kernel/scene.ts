import type { TopoDS_Edge } from "replicad-opencascadejs";
import { add3, distance3, scale3, sub3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Carrier } from "./carrier";
import { edgePoints, meshOf } from "./mesh";
import type { Kernel } from "./opencascade";
import { roughBoxOf } from "./properties";
import { distinct, type Solid } from "./solid";
import { FINENESS } from "./tolerance";
import { Topology } from "./topology";

/** One projected edge, sampled; in the view's own coordinates, mm. */
export interface ProjectedEdge {
  readonly hidden: boolean;
  /** Where two faces go on into each other without a corner. */
  readonly tangent?: true;
  /** The faces it belongs to, by place. */
  readonly faces?: readonly number[];
  readonly points: readonly Vec2[];
}

/** A way of looking: `toViewer` points out of the paper, `right` along it. */
export interface Gaze {
  readonly toViewer: Vec3;
  readonly right: Vec3;
}

/** A curve of a body, in space, from one end to the other; mm, radians. */
export type SightCurve =
  | { readonly kind: "line"; readonly a: Vec3; readonly b: Vec3 }
  /** centre + x·cos t + y·sin t: a circle, or an ellipse by its half axes */
  | {
      readonly kind: "circle";
      readonly centre: Vec3;
      readonly x: Vec3;
      readonly y: Vec3;
      readonly from: number;
      readonly to: number;
    }
  | { readonly kind: "free"; readonly points: readonly Vec3[] };

/** All of a body that a view needs. Plain data. */
export interface Scene {
  readonly faces: readonly Carrier[];
  /** Fine facets; `faceOf` tells of each triangle which face it lies on. */
  readonly net: { readonly positions: Float32Array; readonly triangles: Uint32Array };
  readonly faceOf: Uint32Array;
  /** How far facets may lie from the surface, mm. */
  readonly fineness: number;
  /** Edges with the two faces that meet there; seams are none. */
  readonly edges: readonly { readonly curve: SightCurve; readonly faces: readonly [number, number] }[];
  /** Across the whole, mm. */
  readonly size: number;
}

/** Facets turn by no more than this, radians. */
const TURN = 0.12;

/** Reads what views of a body are made of. */
export function sceneOf(kernel: Kernel, solid: Solid): Scene {
  return kernel.guard("drawing a view", () => {
    const { min, max } = roughBoxOf(kernel, solid.shape);
    const size = distance3(min, max),
      fineness = size * FINENESS;
    const mesh = meshOf(kernel, solid, fineness, TURN);
    const faceOf = new Uint32Array(mesh.triangles.length / 3);
    mesh.faces.forEach((f, i) => faceOf.fill(i, f.start / 3, (f.start + f.count) / 3));
    return Topology.over(kernel, solid, (t) => ({
      faces: t.faces.map((_, i) => t.carrier(i)),
      net: { positions: mesh.positions, triangles: mesh.triangles },
      faceOf,
      fineness,
      edges: t.edges.flatMap((shape, i) => {
        const [f, g] = t.edgeFaces[i]!;
        if (f === undefined || g === undefined) return [];
        const edge = kernel.library.TopoDS.Edge(shape),
          curve = curveOf(kernel, edge);
        edge.delete();
        return [{ curve, faces: [f, g] as const }];
      }),
      size,
    }));
  });
}

/** Free curves in so many pieces. */
const PIECES = 64;

function curveOf(kernel: Kernel, edge: TopoDS_Edge): SightCurve {
  const adaptor = new kernel.library.BRepAdaptor_Curve(edge);
  const from = adaptor.FirstParameter(),
    to = adaptor.LastParameter(),
    type = String(adaptor.GetType());
  const at = (u: number): Vec3 => {
    const p = adaptor.EvalD0(u),
      v: Vec3 = [p.X(), p.Y(), p.Z()];
    p.delete();
    return v;
  };
  const curve = ((): SightCurve => {
    if (type === "GeomAbs_Line") return { kind: "line", a: at(from), b: at(to) };
    if (type !== "GeomAbs_Circle" && type !== "GeomAbs_Ellipse")
      return {
        kind: "free",
        points: Array.from({ length: PIECES + 1 }, (_, i) => at(from + ((to - from) * i) / PIECES)),
      };
    const centre = scale3(add3(at(0), at(Math.PI)), 0.5);
    return { kind: "circle", centre, x: sub3(at(0), centre), y: sub3(at(Math.PI / 2), centre), from, to };
  })();
  adaptor.delete();
  return curve;
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
