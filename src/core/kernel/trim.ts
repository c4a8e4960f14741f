import type { Carrier } from "./carrier";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { add3, cross3, dot3, scale3, unit3, type Vec3 } from "@/core/geometry/vector";
import { combine } from "./boolean";
import type { Kernel } from "./opencascade";
import { boxOf, roughBoxOf } from "./properties";
import { direction, point } from "./primitives";
import { explore, type FaceName, type Solid } from "./solid";
import { prism } from "./sweep";

/** A point is on a plane within this, mm. */
const ON = 1e-6;

/** The separate solids of a body, each with the names of its faces. The caller releases them. */
export function piecesOf(kernel: Kernel, solid: Solid): Solid[] {
  let at = 0;
  return explore(kernel, solid.shape, "SOLID").map((shape) => {
    const faces = explore(kernel, shape, "FACE"), n = faces.length;
    kernel.release(...faces);
    return { shape, names: solid.names.slice(at, (at += n)) };
  });
}

/** Whether a body has a face in a plane. */
export function touches(kernel: Kernel, solid: Solid, frame: Frame): boolean {
  const { min, max } = boxOf(kernel, solid.shape), n = normalOf(frame), o = dot3(n, frame.origin);
  const low = [0, 1, 2].reduce((s, i) => s + Math.min(n[i]! * min[i]!, n[i]! * max[i]!), -o), high = [0, 1, 2].reduce((s, i) => s + Math.max(n[i]! * min[i]!, n[i]! * max[i]!), -o);
  return low <= ON && high >= -ON;
}

/** What is left of a body on the near side of a surface: of a plane, against its normal; of a boss, outside it; of a bore, within it. The new face is called the end. */
export function beyond(kernel: Kernel, solid: Solid, carrier: Extract<Carrier, { kind: "plane" | "cylinder" }>, step: string): Solid {
  const { min, max } = roughBoxOf(kernel, solid.shape), size = 2 * Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) + 1;
  const middle = scale3(add3(min, max), 0.5), end: FaceName[] = [{ step, role: "end" }];
  const called = (s: Solid): Solid => ({ shape: s.shape, names: s.names.map(() => end) });
  let tool: Solid;
  if (carrier.kind === "plane") {
    const { normal } = carrier, foot = add3(middle, scale3(normal, carrier.offset - dot3(normal, middle)));
    const x = unit3(cross3(normal, Math.abs(normal[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
    const half = size, corner = (a: number, b: number) => [a * half, b * half] as const;
    const corners = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
    tool = called(prism(kernel, { origin: foot, x, y: cross3(normal, x) }, { name: "", depth: 0, outer: corners.map((a, i) => ({ kind: "line", curve: `e${i}`, a, b: corners[(i + 1) % 4]! })), holes: [] } as never, 0, size, step));
  } else {
    const from = add3(carrier.at, scale3(carrier.axis, dot3(carrier.axis, [middle[0] - carrier.at[0], middle[1] - carrier.at[1], middle[2] - carrier.at[2]] as Vec3) - size));
    const oc = kernel.library, at = point(kernel, from), along = direction(kernel, carrier.axis), axes = new oc.gp_Ax2(at, along), make = new oc.BRepPrimAPI_MakeCylinder(axes, carrier.radius, 2 * size);
    const shape = make.Shape();
    tool = called({ shape, names: [[], [], []] });
    kernel.release(make, axes, at, along);
  }
  const left = combine(kernel, carrier.kind === "cylinder" && carrier.hollow ? "common" : "cut", solid, [tool]);
  kernel.release(tool.shape);
  return left;
}
