import { normalOf, type Frame } from "@/core/geometry/frame";
import { add3, cross3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { describeEdge, numbered, type Edge } from "./edges";
import { distanceTo } from "./carrier";
import { facesOf, type Face } from "./faces";
import { KernelFault, type Kernel } from "./opencascade";
import { direction, point } from "./primitives";
import { distinct, type Solid } from "./solid";

/** A point on a face's carrier, within this (mm). */
const ON = 1e-6;

/** Where a plane cuts a body: edges named `section/FACE` by the face they lie on. */
export function sectionOf(kernel: Kernel, solid: Solid, frame: Frame): Edge[] {
  const faces = facesOf(kernel, solid);
  return kernel.guard("cutting a section", () => {
    const oc = kernel.library, at = point(kernel, frame.origin), n = direction(kernel, normalOf(frame)), plane = new oc.gp_Pln(at, n);
    const make = new oc.BRepAlgoAPI_Section(solid.shape, plane, false);
    make.Build();
    if (make.HasErrors()) {
      kernel.release(make, plane, at, n);
      throw new KernelFault("the section could not be cut");
    }
    const shape = make.Shape(), { shapes } = distinct(kernel, shape, "EDGE");
    const list = shapes.flatMap((s) => {
      const edge = describeEdge(kernel, s), { points } = edge;
      // a point within it: its ends lie on two faces
      const within = points.length > 2 ? points[points.length >> 1]! : scale3(add3(points[0]!, points[1]!), 0.5), face = faceThrough(faces, within);
      return face ? [{ base: `section/${face.key}`, ...edge }] : [];
    });
    kernel.release(...shapes, make, plane, at, n);
    return numbered(list);
  });
}

/** The face whose carrier passes through a point; of several the one whose middle is nearest. */
function faceThrough(faces: readonly Face[], p: Vec3): Face | undefined {
  const on = faces.filter(({ carrier }) => distanceTo(carrier, p) < ON);
  return on.sort((a, b) => length3(sub3(a.centre, p)) - length3(sub3(b.centre, p)))[0];
}

/**
 * The outlines of round faces as seen along a plane's normal: lines named `silhouette/FACE`. Cylinders have them as
 * straight lines; where an outline would run beside the face, there is none.
 */
export function silhouettesOf(kernel: Kernel, solid: Solid, edges: readonly Edge[], frame: Frame): Edge[] {
  const n = normalOf(frame);
  return numbered(facesOf(kernel, solid).flatMap((face) => {
    const { carrier: c } = face;
    if (c.kind !== "cylinder" || Math.abs(dot3(c.axis, n)) > 1 - 1e-9) return [];
    const rim = edges.filter((e) => e.key.replace(/~\d+$/, "").split("|").includes(face.key)), points = rim.flatMap((e) => e.points);
    const along = points.map((p) => dot3(sub3(p, c.at), c.axis)), across = unit3(cross3(c.axis, n));
    if (!points.length) return [];
    const [low, high] = [Math.min(...along), Math.max(...along)], whole = rim.some((e) => e.shape.kind === "circle" && e.shape.whole);
    return [1, -1].flatMap((side) => {
      const out = scale3(across, side * c.radius), foot = add3(c.at, out);
      if (!whole && !isSpanned(points.map((p) => angleAbout(p, c.at, c.axis, across)), side > 0 ? 0 : Math.PI)) return [];
      return [{ base: `silhouette/${face.key}`, shape: { kind: "line" as const }, points: [add3(foot, scale3(c.axis, low)), add3(foot, scale3(c.axis, high))], length: high - low }];
    });
  }));
}

const angleAbout = (p: Vec3, at: Vec3, axis: Vec3, from: Vec3): number => {
  const w = sub3(p, at);
  return Math.atan2(dot3(w, cross3(axis, from)), dot3(w, from));
};

/** Whether an angle lies in the stretch that some angles fill: all but their widest gap. */
function isSpanned(angles: readonly number[], at: number): boolean {
  const turn = 2 * Math.PI, list = angles.map((a) => ((a % turn) + turn) % turn).sort((a, b) => a - b), want = ((at % turn) + turn) % turn;
  let gap = 0, from = 0;
  list.forEach((a, i) => {
    const next = i + 1 < list.length ? list[i + 1]! : list[0]! + turn;
    if (next - a > gap) [gap, from] = [next - a, a];
  });
  const past = ((want - from) % turn + turn) % turn;
  return past < 1e-9 || past > gap - 1e-9;
}
