import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { parseEdge, sectionKey, silhouetteKey } from "@/core/naming/names";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { TURN } from "@/core/geometry/segment";
import { add3, cross3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { describeEdge, numbered, type Edge } from "./edges";
import { distanceTo, type Carrier } from "./carrier";
import { facesOf, type Face } from "./faces";
import { KernelFault, type Kernel } from "./opencascade";
import { direction, point } from "./primitives";
import { distinct, type Solid } from "./solid";

/** Where a plane cuts a body: edges named `section/FACE` by the face they lie on. */
export function sectionOf(kernel: Kernel, solid: Solid, frame: Frame): Edge[] {
  const faces = facesOf(kernel, solid);
  return kernel.guard("cutting a section", () => {
    const oc = kernel.library,
      at = point(kernel, frame.origin),
      n = direction(kernel, normalOf(frame)),
      plane = new oc.gp_Pln(at, n);
    const make = new oc.BRepAlgoAPI_Section(solid.shape, plane, false);
    make.Build();
    if (make.HasErrors()) {
      kernel.release(make, plane, at, n);
      throw new KernelFault("the section could not be cut");
    }
    const shape = make.Shape(),
      { shapes } = distinct(kernel, shape, "EDGE");
    const list = shapes.flatMap((s) => {
      const edge = describeEdge(kernel, s),
        { points } = edge;
      // a point within it: its ends lie on two faces
      const within = points.length > 2 ? points[points.length >> 1]! : scale3(add3(points[0]!, points[1]!), 0.5),
        face = faceThrough(faces, within);
      return face ? [{ base: sectionKey(face.key), ...edge }] : [];
    });
    kernel.release(...shapes, make, plane, at, n);
    return numbered(list);
  });
}

/** The face whose carrier passes through a point; of several the one whose middle is nearest. */
function faceThrough(faces: readonly Face[], p: Vec3): Face | undefined {
  const on = faces.filter(({ carrier }) => distanceTo(carrier, p) < COINCIDENT);
  return on.sort((a, b) => length3(sub3(a.centre, p)) - length3(sub3(b.centre, p)))[0];
}

/**
 * The outlines of round faces as seen along a plane's normal, named `silhouette/FACE`: lines of cylinders and cones,
 * circles and arcs of balls. Where an outline would run beside the face, there is none; rings show theirs by their
 * edges.
 */
export function silhouettesOf(kernel: Kernel, solid: Solid, edges: readonly Edge[], frame: Frame): Edge[] {
  const n = normalOf(frame);
  return numbered(
    facesOf(kernel, solid).flatMap((face) => {
      const { carrier: c } = face,
        rim = edges.filter((e) => (parseEdge(e.key) as readonly string[]).includes(face.key));
      const list =
        c.kind === "cylinder" || c.kind === "cone"
          ? straightOutlines(c, rim, n)
          : c.kind === "sphere"
            ? ballOutlines(c, rim, face.centre, n)
            : [];
      return list.map((e) => ({ base: silhouetteKey(face.key), ...e }));
    }),
  );
}

type Outline = Omit<Edge, "key">;

/** Where the normals of a cylinder or cone are square to the gaze. */
function straightOutlines(
  c: Extract<Carrier, { kind: "cylinder" | "cone" }>,
  rim: readonly Edge[],
  n: Vec3,
): Outline[] {
  const at = c.kind === "cylinder" ? c.at : c.tip,
    tilt = dot3(c.axis, n),
    points = rim.flatMap((e) => e.points);
  if (Math.abs(tilt) > 1 - SAME_WAY || !points.length) return [];
  const grow = c.kind === "cone" ? Math.tan(c.half) : 0,
    towards = unit3(sub3(n, scale3(c.axis, tilt))),
    across = cross3(c.axis, towards);
  // cos·(towards, n) = grow·(axis, n): a cone looked at within its own angle has no outline
  const cosine = (grow * tilt) / Math.sqrt(1 - tilt * tilt);
  if (Math.abs(cosine) >= 1 - SAME_WAY) return [];
  const along = points.map((p) => dot3(sub3(p, at), c.axis)),
    whole = rim.some((e) => e.shape.kind === "circle" && e.shape.whole);
  const [low, high] = [Math.min(...along), Math.max(...along)],
    angles = points.map((p) => angleAbout(p, at, c.axis, towards));
  return [1, -1].flatMap((side) => {
    const turn = side * Math.acos(cosine),
      out = add3(scale3(towards, Math.cos(turn)), scale3(across, Math.sin(turn)));
    if (!whole && !isSpanned(angles, turn)) return [];
    const place = (s: number) =>
      add3(add3(at, scale3(c.axis, s)), scale3(out, c.kind === "cylinder" ? c.radius : s * grow));
    const [a, b] = [place(low), place(high)];
    return [{ shape: { kind: "line" as const }, points: [a, b], length: length3(sub3(b, a)) }];
  });
}

/** The great circle square to the gaze, as far as it lies within the face: on its side of every rim. */
function ballOutlines(c: Extract<Carrier, { kind: "sphere" }>, rim: readonly Edge[], middle: Vec3, n: Vec3): Outline[] {
  const x = unit3(cross3(n, Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0])),
    y = cross3(n, x);
  const place = (t: number) =>
    add3(c.centre, add3(scale3(x, c.radius * Math.cos(t)), scale3(y, c.radius * Math.sin(t))));
  const sides = rim.flatMap(({ shape }) =>
    shape.kind === "circle" ? [{ ...shape, sign: Math.sign(dot3(sub3(middle, shape.centre), shape.axis)) || 1 }] : [],
  );
  const isIn = (p: Vec3) => sides.every((s) => s.sign * dot3(sub3(p, s.centre), s.axis) > -COINCIDENT);
  const cuts = sides
    .flatMap((s) => {
      const a = c.radius * dot3(x, s.axis),
        b = c.radius * dot3(y, s.axis),
        d = dot3(sub3(s.centre, c.centre), s.axis),
        r = Math.hypot(a, b);
      return r <= Math.abs(d) ? [] : [1, -1].map((k) => Math.atan2(b, a) + k * Math.acos(d / r));
    })
    .map((t) => ((t % TURN) + TURN) % TURN)
    .sort((p, q) => p - q);
  const stretch = (from: number, to: number): Outline => ({
    shape: { kind: "circle", centre: c.centre, axis: n, radius: c.radius, whole: to - from > TURN - SAME_WAY },
    points: Array.from({ length: 65 }, (_, i) => place(from + ((to - from) * i) / 64)),
    length: c.radius * (to - from),
  });
  if (!cuts.length) return isIn(place(0)) ? [stretch(0, TURN)] : [];
  return cuts.flatMap((from, i) => {
    const to = i + 1 < cuts.length ? cuts[i + 1]! : cuts[0]! + TURN;
    return to - from > SAME_WAY && isIn(place((from + to) / 2)) ? [stretch(from, to)] : [];
  });
}

const angleAbout = (p: Vec3, at: Vec3, axis: Vec3, from: Vec3): number => {
  const w = sub3(p, at);
  return Math.atan2(dot3(w, cross3(axis, from)), dot3(w, from));
};

/** Whether an angle lies in the stretch that some angles fill: all but their widest gap. */
function isSpanned(angles: readonly number[], at: number): boolean {
  const turn = TURN,
    list = angles.map((a) => ((a % turn) + turn) % turn).sort((a, b) => a - b),
    want = ((at % turn) + turn) % turn;
  let gap = 0,
    from = 0;
  list.forEach((a, i) => {
    const next = i + 1 < list.length ? list[i + 1]! : list[0]! + turn;
    if (next - a > gap) [gap, from] = [next - a, a];
  });
  const past = (((want - from) % turn) + turn) % turn;
  return past < SAME_WAY || past > gap - SAME_WAY;
}
