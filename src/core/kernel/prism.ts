import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape, TopoDS_Wire } from "replicad-opencascadejs";
import { normalOf, offsetFrame, toSpace, type Frame } from "@/core/geometry/frame";
import { distance3, scale3, type Vec3 } from "@/core/geometry/vector";
import { isWholeCircle, onCircle, type Segment } from "@/core/sketch/arrangement";
import type { Region } from "@/core/sketch/regions";
import { KernelFault, type Kernel } from "./opencascade";
import { distinct, explore, type FaceName, type Solid } from "./solid";

const middle = (s: Segment): readonly [number, number] =>
  s.kind === "line" ? [(s.a[0] + s.b[0]) / 2, (s.a[1] + s.b[1]) / 2] : onCircle(s.centre, s.radius, s.from + s.sweep / 2);

/**
 * Seams and circle starts lie here, off every principal direction: a seam on a silhouette would be drawn as an edge.
 */
const SEAM = 0.61;

export function point(kernel: Kernel, p: Vec3) {
  return new kernel.library.gp_Pnt(p[0], p[1], p[2]);
}

export function direction(kernel: Kernel, p: Vec3) {
  return new kernel.library.gp_Dir(p[0], p[1], p[2]);
}

function edgeOf(kernel: Kernel, frame: Frame, s: Segment): TopoDS_Edge {
  const oc = kernel.library;
  if (s.kind === "line") {
    const a = point(kernel, toSpace(frame, s.a)), b = point(kernel, toSpace(frame, s.b));
    const make = new oc.BRepBuilderAPI_MakeEdge(a, b);
    const edge = make.Edge();
    kernel.release(make, a, b);
    return edge;
  }
  const whole = isWholeCircle(s);
  const turnX = whole ? SEAM : 0;
  const x: Vec3 = [0, 1, 2].map((i) => frame.x[i]! * Math.cos(turnX) + frame.y[i]! * Math.sin(turnX)) as unknown as Vec3;
  const n = scale3(normalOf(frame), s.sweep < 0 ? -1 : 1);
  const c = point(kernel, toSpace(frame, s.centre)), dn = direction(kernel, n), dx = direction(kernel, x);
  const axes = new oc.gp_Ax2(c, dn, dx);
  const circle = new oc.gp_Circ(axes, s.radius);
  // for a clockwise arc the axis is turned over, and angles count the other way
  const from = s.sweep < 0 ? -s.from : s.from;
  const make = whole ? new oc.BRepBuilderAPI_MakeEdge(circle) : new oc.BRepBuilderAPI_MakeEdge(circle, from, from + Math.abs(s.sweep));
  const edge = make.Edge();
  kernel.release(make, circle, axes, c, dn, dx);
  return edge;
}

function wireOf(kernel: Kernel, frame: Frame, loop: readonly Segment[]): TopoDS_Wire {
  const make = new kernel.library.BRepBuilderAPI_MakeWire();
  for (const s of loop) {
    const edge = edgeOf(kernel, frame, s);
    make.Add(edge);
    kernel.release(edge);
  }
  if (!make.IsDone()) throw new KernelFault("the outline could not be joined into a wire");
  const wire = make.Wire();
  kernel.release(make);
  return wire;
}

function faceOf(kernel: Kernel, frame: Frame, region: Region): TopoDS_Face {
  const oc = kernel.library;
  const c = point(kernel, frame.origin), n = direction(kernel, normalOf(frame));
  const plane = new oc.gp_Pln(c, n);
  const outer = wireOf(kernel, frame, region.outer);
  const make = new oc.BRepBuilderAPI_MakeFace(plane, outer, true);
  const holes = region.holes.map((h) => wireOf(kernel, frame, h));
  for (const h of holes) make.Add(h);
  if (!make.IsDone()) throw new KernelFault("the region could not be made a face");
  const face = make.Face();
  kernel.release(make, plane, c, n, outer, ...holes);
  return face;
}

/** Middle of an edge in space. */
export function edgeMiddle(kernel: Kernel, edge: TopoDS_Shape): Vec3 {
  const oc = kernel.library;
  const e = oc.TopoDS.Edge(edge);
  const a = new oc.BRepAdaptor_Curve(e);
  const p = a.EvalD0((a.FirstParameter() + a.LastParameter()) / 2);
  const at: Vec3 = [p.X(), p.Y(), p.Z()];
  p.delete();
  a.delete();
  e.delete();
  return at;
}

/**
 * A prism over one region, from `from` to `to` millimetres along the frame's normal (from < to).
 * Its faces are named by `step`: start, end, and side with the curve it rose from.
 */
export function prism(kernel: Kernel, frame: Frame, region: Region, from: number, to: number, step: string): Solid {
  return kernel.guard("extruding", () => {
    const oc = kernel.library;
    const base = offsetFrame(frame, from);
    const face = faceOf(kernel, base, region);
    const rise = scale3(normalOf(frame), to - from);
    const vector = new oc.gp_Vec(rise[0], rise[1], rise[2]);
    const make = new oc.BRepPrimAPI_MakePrism(face, vector, false, true);
    const shape = make.Shape();
    const { index, shapes: faces } = distinct(kernel, shape, "FACE");
    const names: FaceName[][] = faces.map(() => []);
    const give = (f: TopoDS_Shape, name: FaceName) => {
      const k = index.find(f);
      if (k >= 0) names[k]!.push(name);
    };
    const first = make.FirstShape(), last = make.LastShape();
    give(first, { step, role: "start" });
    give(last, { step, role: "end" });
    const segments = [...region.outer, ...region.holes.flat()];
    const middles = segments.map((s) => (isWholeCircle(s) && s.kind === "arc" ? toSpace(base, onCircle(s.centre, s.radius, (s.sweep < 0 ? -Math.PI : Math.PI) + SEAM)) : toSpace(base, middle(s))));
    // history must be asked with the edges of the built face: they are copies of those made
    for (const edge of explore(kernel, face, "EDGE")) {
      const at = edgeMiddle(kernel, edge);
      let best = 0;
      middles.forEach((m, i) => {
        if (distance3(m, at) < distance3(middles[best]!, at)) best = i;
      });
      const made = make.Generated(edge);
      if (made.Size() > 0) {
        const side = made.First();
        give(side, { step, role: "side", curve: segments[best]!.curve });
        kernel.release(side);
      }
      kernel.release(made, edge);
    }
    kernel.release(first, last, ...faces, make, vector, face);
    return { shape, names };
  });
}
