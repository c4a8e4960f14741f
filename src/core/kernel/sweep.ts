import { COINCIDENT, ROUNDING } from "@/core/geometry/tolerance";
import type { NCollection_List_TopoDS_Shape, TopoDS_Face, TopoDS_Shape, TopoDS_Wire } from "replicad-opencascadejs";
import { normalOf, offsetFrame, toSpace, type Frame } from "@/core/geometry/frame";
import { turnedFrame, type Line } from "@/core/geometry/line";
import { distance3, scale3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { isWhole, onCircle, onEllipse, segmentMiddle, TURN } from "@/core/geometry/segment";
import type { Segment } from "@/core/sketch/arrangement";
import type { Outline } from "@/core/sketch/regions";
import { distanceTo } from "./carrier";
import { carrierOf } from "./recognise";
import { edgeOf, SEAM } from "./edge";
import { drain } from "./history";
import { direction, point } from "./primitives";
import { KernelFault, type Kernel } from "./opencascade";
import { type FaceName } from "@/core/naming/names";
import { distinct, explore, faceShapes, type Solid } from "./solid";
import type { Topology } from "./topology";

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

function faceOf(kernel: Kernel, frame: Frame, region: Outline): TopoDS_Face {
  const oc = kernel.library;
  const c = point(kernel, frame.origin),
    n = direction(kernel, normalOf(frame));
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
function edgeMiddle(kernel: Kernel, edge: TopoDS_Shape): Vec3 {
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

/** A sweep of the library, of which it can be asked what rose from what. */
interface Sweep {
  Shape(): TopoDS_Shape;
  FirstShape(): TopoDS_Shape;
  LastShape(): TopoDS_Shape;
  Generated(s: TopoDS_Shape): NCollection_List_TopoDS_Shape;
}

/** Middle of a segment as the edge made of it has it. */
const middle = (s: Segment): Vec2 =>
  !isWhole(s)
    ? segmentMiddle(s)
    : s.kind === "arc"
      ? onCircle(s.centre, s.radius, (s.sweep < 0 ? -Math.PI : Math.PI) + SEAM)
      : s.kind === "ellipse"
        ? onEllipse(s.centre, s.major, s.minor, s.from + Math.PI)
        : segmentMiddle(s);

/**
 * Names the faces of a sweep over a face: start, end, and side with the curve it rose from. `closed`: it has no ends.
 */
function named(
  kernel: Kernel,
  sweep: Sweep,
  frame: Frame,
  region: Outline,
  face: TopoDS_Shape,
  step: string,
  closed: boolean,
): Solid {
  const shape = sweep.Shape();
  const { index, shapes: faces } = faceShapes(kernel, shape);
  const names: FaceName[][] = faces.map(() => []);
  const give = (f: TopoDS_Shape, name: FaceName) => {
    const k = index.find(f);
    if (k >= 0 && !names[k]!.some((n) => n.role === name.role && n.of === name.of)) names[k]!.push(name);
  };
  if (!closed) {
    const first = sweep.FirstShape(),
      last = sweep.LastShape();
    give(first, { step, role: "start" });
    give(last, { step, role: "end" });
    kernel.release(first, last);
  }
  const segments = [...region.outer, ...region.holes.flat()];
  const middles = segments.map((s) => toSpace(frame, middle(s)));
  // history must be asked with the edges of the built face: they are copies of those made
  for (const edge of explore(kernel, face, "EDGE")) {
    const at = edgeMiddle(kernel, edge);
    let best = 0;
    middles.forEach((m, i) => {
      if (distance3(m, at) < distance3(middles[best]!, at)) best = i;
    });
    drain(kernel, sweep.Generated(edge), (side) => give(side, { step, role: "side", of: segments[best]!.curve }));
    kernel.release(edge);
  }
  // of flat faces square to an axis the history knows nothing: they lie where their line does
  for (const [i, shape] of faces.entries()) {
    if (names[i]!.length) continue;
    const f = kernel.library.TopoDS.Face(shape),
      carrier = carrierOf(kernel, f);
    f.delete();
    const k = middles.findIndex(
      (m, j) => !names.flat().some((n) => n.of === segments[j]!.curve) && distanceTo(carrier, m) < COINCIDENT,
    );
    if (k >= 0) names[i]!.push({ step, role: "side", of: segments[k]!.curve });
  }
  return { shape, names };
}

/**
 * A prism over one region, from `from` to `to` millimetres along the frame's normal (from < to). Faces are named by
 * `step`.
 */
export function prism(kernel: Kernel, frame: Frame, region: Outline, from: number, to: number, step: string): Solid {
  return kernel.guard("extruding", () => {
    const oc = kernel.library;
    const base = offsetFrame(frame, from);
    const face = kernel.run(() => faceOf(kernel, base, region));
    const rise = scale3(normalOf(frame), to - from);
    const vector = new oc.gp_Vec(rise[0], rise[1], rise[2]);
    const make = kernel.run(() => new oc.BRepPrimAPI_MakePrism(face, vector, false, true));
    const solid = named(kernel, make, base, region, face, step, false);
    kernel.release(make, vector, face);
    return solid;
  });
}

/**
 * A prism over a flat face of a body, from `from` to `to` mm along its normal; sides are called after the faces
 * across the edges.
 */
export function prismOnFace(
  kernel: Kernel,
  t: Topology,
  face: number,
  normal: Vec3,
  from: number,
  to: number,
  step: string,
): Solid {
  return kernel.guard("extruding", () => {
    const oc = kernel.library,
      shift = scale3(normal, from),
      rise = scale3(normal, to - from);
    const motion = new oc.gp_Trsf(),
      by = new oc.gp_Vec(shift[0], shift[1], shift[2]),
      vector = new oc.gp_Vec(rise[0], rise[1], rise[2]);
    motion.SetTranslation(by);
    const place = new oc.TopLoc_Location(motion),
      base = t.faces[face]!.Moved(place, false);
    const make = kernel.run(() => new oc.BRepPrimAPI_MakePrism(base, vector, true, true)),
      shape = make.Shape();
    const { index, shapes } = faceShapes(kernel, shape),
      names: FaceName[][] = shapes.map(() => []);
    const give = (f: TopoDS_Shape, name: FaceName) => void names[index.find(f)]?.push(name);
    const first = make.FirstShape(),
      last = make.LastShape();
    give(first, { step, role: "start" });
    give(last, { step, role: "end" });
    // the moved face keeps the order of its edges
    const edges = distinct(kernel, base, "EDGE").shapes;
    t.faceEdges[face]!.forEach((e, i) => {
      const across = t.edgeFaces[e]!.find((f) => f !== face) ?? face;
      drain(kernel, make.Generated(edges[i]!), (side) => give(side, { step, role: "side", of: t.names[across]![0]! }));
    });
    kernel.release(first, last, make, base, place, vector, by, motion, ...edges);
    return { shape, names };
  });
}

/**
 * A body turned from one region about an axis in its plane. Faces are named by `step`; a whole turn has no start and
 * end.
 * @param from @param to angles from the frame, radians, by the right hand about the axis; a whole turn where they
 * differ by 2π @param seam by how many quarter turns a whole turn's seam is moved on
 */
export function revolution(
  kernel: Kernel,
  frame: Frame,
  region: Outline,
  axis: Line,
  from: number,
  to: number,
  step: string,
  seam = 0,
): Solid {
  return kernel.guard("revolving", () => {
    const oc = kernel.library,
      whole = Math.abs(to - from - TURN) < ROUNDING;
    // a whole turn begins off the principal directions: a seam on an outline is taken for an edge when lines are hidden
    const start = whole ? from + SEAM + (seam * TURN) / 4 : from;
    const base = start ? turnedFrame(frame, axis, start) : frame;
    const face = kernel.run(() => faceOf(kernel, base, region));
    const at = point(kernel, axis.at),
      along = direction(kernel, axis.along),
      line = new oc.gp_Ax1(at, along);
    const make = kernel.run(() =>
      whole
        ? new oc.BRepPrimAPI_MakeRevol(face, line, false)
        : new oc.BRepPrimAPI_MakeRevol(face, line, to - from, false),
    );
    const solid = named(kernel, make, base, region, face, step, whole);
    kernel.release(make, line, at, along, face);
    return solid;
  });
}
