import { COINCIDENT } from "@/core/geometry/tolerance";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { TURN } from "@/core/geometry/segment";
import { add3, cross3, distance3, dot3, scale3, sub3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Outline } from "@/core/sketch/regions";
import { combine } from "./boolean";
import type { Carrier } from "./carrier";
import type { Kernel } from "./opencascade";
import { direction, point } from "./primitives";
import { boxOf, roughBoxOf } from "./properties";
import { type FaceName } from "@/core/naming/names";
import { explore, faceShapes, type Solid } from "./solid";
import { prism, revolution } from "./sweep";

/** The separate solids of a body, each with the names of its faces. The caller releases them. */
export function piecesOf(kernel: Kernel, solid: Solid): Solid[] {
  let at = 0;
  return explore(kernel, solid.shape, "SOLID").map((shape) => {
    const faces = explore(kernel, shape, "FACE"),
      n = faces.length;
    kernel.release(...faces);
    return { shape, names: solid.names.slice(at, (at += n)) };
  });
}

/** Whether a body has a face in a plane. */
export function touches(kernel: Kernel, solid: Solid, frame: Frame): boolean {
  const { min, max } = boxOf(kernel, solid.shape),
    n = normalOf(frame),
    o = dot3(n, frame.origin);
  const low = [0, 1, 2].reduce((s, i) => s + Math.min(n[i]! * min[i]!, n[i]! * max[i]!), -o),
    high = [0, 1, 2].reduce((s, i) => s + Math.max(n[i]! * min[i]!, n[i]! * max[i]!), -o);
  return low <= COINCIDENT && high >= -COINCIDENT;
}

/** Surfaces that can stop a volume. */
export type Stop = Exclude<Carrier, { kind: "other" | "elliptic" }>;
/** Whether a surface can. */
export const isStop = (carrier: Carrier): carrier is Stop => carrier.kind !== "other" && carrier.kind !== "elliptic";

/** A surface moved towards what lies behind it, by mm: a plane along its normal, a boss shrinks, a bore grows. */
export function deeper(c: Stop, by: number): Stop {
  if (c.kind === "plane") return { ...c, offset: c.offset + by };
  const grown = c.hollow ? by : -by;
  if (c.kind === "cone") return { ...c, tip: add3(c.tip, scale3(c.axis, -grown / Math.sin(c.half))) };
  return c.kind === "torus" ? { ...c, minor: c.minor + grown } : { ...c, radius: c.radius + grown };
}

/** All space on one side of a surface, as far as it matters for a body: beyond a plane, inside a round one. */
function within(kernel: Kernel, stop: Stop, middle: Vec3, size: number, step: string): TopoDS_Shape {
  const oc = kernel.library,
    square = (n: Vec3) => unit3(cross3(n, Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
  const over = (corners: readonly Vec2[]): Outline => ({
    outer: corners.map((a, i) => ({ kind: "line", curve: `e${i}`, a, b: corners[(i + 1) % corners.length]! })),
    holes: [],
  });
  if (stop.kind === "plane") {
    const foot = add3(middle, scale3(stop.normal, stop.offset - dot3(stop.normal, middle))),
      x = square(stop.normal);
    return prism(
      kernel,
      { origin: foot, x, y: cross3(stop.normal, x) },
      over([
        [-size, -size],
        [size, -size],
        [size, size],
        [-size, size],
      ]),
      0,
      size,
      step,
    ).shape;
  }
  if (stop.kind === "cone") {
    const x = square(stop.axis),
      reach = size + distance3(stop.tip, middle);
    return revolution(
      kernel,
      { origin: stop.tip, x, y: stop.axis },
      over([
        [0, 0],
        [reach * Math.tan(stop.half), reach],
        [0, reach],
      ]),
      { at: stop.tip, along: stop.axis },
      0,
      TURN,
      step,
    ).shape;
  }
  const from =
    stop.kind === "cylinder"
      ? add3(stop.at, scale3(stop.axis, dot3(stop.axis, sub3(middle, stop.at)) - size))
      : stop.centre;
  const at = point(kernel, from),
    along = direction(kernel, stop.kind === "sphere" ? [0, 0, 1] : stop.axis),
    axes = new oc.gp_Ax2(at, along);
  const make =
    stop.kind === "cylinder"
      ? new oc.BRepPrimAPI_MakeCylinder(axes, stop.radius, 2 * size)
      : stop.kind === "sphere"
        ? new oc.BRepPrimAPI_MakeSphere(axes, stop.radius)
        : new oc.BRepPrimAPI_MakeTorus(axes, stop.major, stop.minor);
  const shape = make.Shape();
  kernel.release(make, axes, at, along);
  return shape;
}

/**
 * What is left of a body on the near side of a surface: of a plane, against its normal; of a boss, outside it; of a
 * bore, within it. The new face is called the end.
 */
export function beyond(kernel: Kernel, solid: Solid, carrier: Stop, step: string): Solid {
  const { min, max } = roughBoxOf(kernel, solid.shape),
    size = 2 * distance3(min, max) + 1;
  const shape = within(kernel, carrier, scale3(add3(min, max), 0.5), size, step),
    end: FaceName[] = [{ step, role: "end" }];
  const left = combine(kernel, carrier.kind !== "plane" && carrier.hollow ? "common" : "cut", solid, [
    { shape, names: faceShapes(kernel, shape).shapes.map(() => end) },
  ]);
  kernel.release(shape);
  return left;
}
