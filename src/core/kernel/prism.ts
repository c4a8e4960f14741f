import type { TopoDS_Face, TopoDS_Shape, TopoDS_Wire } from "replicad-opencascadejs";
import { normalOf, offsetFrame, toSpace, type Frame } from "@/core/geometry/frame";
import { distance3, scale3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { isWhole, onCircle, onEllipse, segmentMiddle } from "@/core/geometry/segment";
import type { Segment } from "@/core/sketch/arrangement";
import type { Region } from "@/core/sketch/regions";
import { edgeOf, SEAM } from "./edge";
import { direction, point } from "./primitives";
import { KernelFault, type Kernel } from "./opencascade";
import { distinct, explore, type FaceName, type Solid } from "./solid";

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
    const middle = (s: Segment): Vec2 => (!isWhole(s) ? segmentMiddle(s) : s.kind === "arc" ? onCircle(s.centre, s.radius, (s.sweep < 0 ? -Math.PI : Math.PI) + SEAM) : s.kind === "ellipse" ? onEllipse(s.centre, s.major, s.minor, s.from + Math.PI) : segmentMiddle(s));
    const middles = segments.map((s) => toSpace(base, middle(s)));
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
