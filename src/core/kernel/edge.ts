import type { TopoDS_Edge } from "replicad-opencascadejs";
import { normalOf, toSpace, type Frame } from "@/core/geometry/frame";
import { isWhole, type Segment } from "@/core/geometry/segment";
import { splinePoles } from "@/core/geometry/spline";
import { perAxis, scale3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";
import { direction, point } from "./primitives";

/**
 * Seams and circle starts lie here, off every principal direction: a seam on a silhouette would be drawn as an edge.
 */
export const SEAM = 0.61;

/** A segment of a sketch as an edge of the kernel, in a frame of space. */
export function edgeOf(kernel: Kernel, frame: Frame, s: Segment): TopoDS_Edge {
  const oc = kernel.library;
  if (s.kind === "line") {
    const a = point(kernel, toSpace(frame, s.a)),
      b = point(kernel, toSpace(frame, s.b));
    const make = new oc.BRepBuilderAPI_MakeEdge(a, b);
    const edge = make.Edge();
    kernel.release(make, a, b);
    return edge;
  }
  if (s.kind === "spline") return splineEdge(kernel, frame, s);
  return roundEdge(kernel, frame, s);
}

function roundEdge(kernel: Kernel, frame: Frame, s: Extract<Segment, { kind: "arc" | "ellipse" }>): TopoDS_Edge {
  const oc = kernel.library,
    whole = isWhole(s);
  // the kernel wants the longer half axis first and the shorter a quarter turn after it
  const [u, v, shift]: readonly [Vec2, Vec2, number] =
    s.kind === "arc"
      ? [[s.radius, 0], [0, s.radius], 0]
      : Math.hypot(...s.major) >= Math.hypot(...s.minor)
        ? [s.major, s.minor, 0]
        : [s.minor, [-s.major[0], -s.major[1]], -Math.PI / 2];
  const turnX = whole && s.kind === "arc" ? SEAM : 0;
  const along: Vec2 = [
    u[0] * Math.cos(turnX) + v[0] * Math.sin(turnX),
    u[1] * Math.cos(turnX) + v[1] * Math.sin(turnX),
  ];
  const l = Math.hypot(...along);
  const x: Vec3 = perAxis((i) => (frame.x[i] * along[0] + frame.y[i] * along[1]) / l);
  // run clockwise, the axis is turned over and angles count the other way
  const handed = u[0] * v[1] - u[1] * v[0] > 0 ? 1 : -1,
    sense = s.sweep < 0 ? -1 : 1;
  const n = scale3(normalOf(frame), handed * sense);
  const c = point(kernel, toSpace(frame, s.centre)),
    dn = direction(kernel, n),
    dx = direction(kernel, x);
  const axes = new oc.gp_Ax2(c, dn, dx);
  const from = sense * (s.from + shift),
    to = from + Math.abs(s.sweep);
  const curve =
    s.kind === "arc" ? new oc.gp_Circ(axes, s.radius) : new oc.gp_Elips(axes, Math.hypot(...u), Math.hypot(...v));
  const make = whole ? new oc.BRepBuilderAPI_MakeEdge(curve) : new oc.BRepBuilderAPI_MakeEdge(curve, from, to);
  const edge = make.Edge();
  kernel.release(make, curve, axes, c, dn, dx);
  return edge;
}

function splineEdge(kernel: Kernel, frame: Frame, s: Extract<Segment, { kind: "spline" }>): TopoDS_Edge {
  const oc = kernel.library,
    n = s.beziers.length,
    { poles, knots: values } = splinePoles(s.beziers);
  const list = new oc.NCollection_Array1_gp_Pnt(1, poles.length),
    knots = new oc.NCollection_Array1_double(1, n + 1),
    often = new oc.NCollection_Array1_int(1, n + 1);
  poles.forEach((p, i) => {
    const q = point(kernel, toSpace(frame, p));
    list.SetValue(i + 1, q);
    q.delete();
  });
  values.forEach((t, i) => {
    knots.SetValue(i + 1, t);
    often.SetValue(i + 1, i === 0 || i === n ? 4 : 1);
  });
  const curve = new oc.Geom_BSplineCurve(list, knots, often, 3, false);
  const make = new oc.BRepBuilderAPI_MakeEdge(curve);
  const edge = make.Edge();
  kernel.release(make, curve, list, knots, often);
  return edge;
}
