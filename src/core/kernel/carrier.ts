import { DERIVE, SAME_CARRIER, TIDY } from "./tolerance";
import { ROUNDING } from "@/core/geometry/tolerance";
import type { BRepAdaptor_Surface, TopoDS_Face } from "replicad-opencascadejs";
import type { Line } from "@/core/geometry/line";
import {
  add3,
  cross2,
  cross3,
  dot2,
  dot3,
  length3,
  scale3,
  sub2,
  sub3,
  unit3,
  type Vec2,
  type Vec3,
} from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";

/** The surface a face is cut from. `hollow`: the material lies outside, as in a bore. mm, radians. */
export type Carrier =
  | { readonly kind: "plane"; readonly normal: Vec3; readonly offset: number }
  | {
      readonly kind: "cylinder";
      readonly at: Vec3;
      readonly axis: Vec3;
      readonly radius: number;
      readonly hollow: boolean;
    }
  /** `axis` runs from the tip into the cone; `half` is the angle between them. */
  | { readonly kind: "cone"; readonly tip: Vec3; readonly axis: Vec3; readonly half: number; readonly hollow: boolean }
  | { readonly kind: "sphere"; readonly centre: Vec3; readonly radius: number; readonly hollow: boolean }
  | {
      readonly kind: "torus";
      readonly centre: Vec3;
      readonly axis: Vec3;
      readonly major: number;
      readonly minor: number;
      readonly hollow: boolean;
    }
  | { readonly kind: "other"; readonly type: string };

/** The line a round surface turns about; none for planes and spheres. */
export const axisOf = (carrier: Carrier): Line | undefined =>
  carrier.kind === "cylinder"
    ? { at: carrier.at, along: carrier.axis }
    : carrier.kind === "cone"
      ? { at: carrier.tip, along: carrier.axis }
      : carrier.kind === "torus"
        ? { at: carrier.centre, along: carrier.axis }
        : undefined;

/** How far a point is from a carrier, mm; without end for surfaces that are none of the elementary ones. */
export function distanceTo(carrier: Carrier, p: Vec3): number {
  if (carrier.kind === "plane") return Math.abs(dot3(carrier.normal, p) - carrier.offset);
  if (carrier.kind === "sphere") return Math.abs(length3(sub3(p, carrier.centre)) - carrier.radius);
  const axis = axisOf(carrier);
  if (!axis) return Infinity;
  const w = sub3(p, axis.at),
    along = dot3(w, axis.along),
    out = length3(cross3(w, axis.along));
  if (carrier.kind === "cylinder") return Math.abs(out - carrier.radius);
  if (carrier.kind === "cone") return Math.abs(out * Math.cos(carrier.half) - along * Math.sin(carrier.half));
  return carrier.kind === "torus" ? Math.abs(Math.hypot(out - carrier.major, along) - carrier.minor) : Infinity;
}

/** Unit normal of a carrier at a point on it, out of the material; undefined where there is none. */
export function normalAt(carrier: Carrier, p: Vec3): Vec3 | undefined {
  if (carrier.kind === "plane") return carrier.normal;
  if (carrier.kind === "other") return undefined;
  const axis = axisOf(carrier),
    sign = carrier.hollow ? -1 : 1,
    away = (from: Vec3): Vec3 | undefined => {
      const w = sub3(p, from);
      return length3(w) < ROUNDING ? undefined : scale3(unit3(w), sign);
    };
  if (!axis) return away((carrier as { centre: Vec3 }).centre);
  const w = sub3(p, axis.at),
    along = dot3(w, axis.along),
    foot = add3(axis.at, scale3(axis.along, along)),
    out = sub3(p, foot);
  if (length3(out) < ROUNDING) return undefined;
  if (carrier.kind === "cylinder") return away(foot);
  if (carrier.kind === "cone")
    return scale3(sub3(scale3(unit3(out), Math.cos(carrier.half)), scale3(axis.along, Math.sin(carrier.half))), sign);
  return away(add3(axis.at, scale3(unit3(out), (carrier as { major: number }).major)));
}

/**
 * A carrier after a motion, reflection or scaling: where points and directions go, and what lengths are multiplied
 * by.
 */
export function mappedCarrier(carrier: Carrier, place: (p: Vec3) => Vec3, turn: (d: Vec3) => Vec3, scale = 1): Carrier {
  switch (carrier.kind) {
    case "plane": {
      const normal = turn(carrier.normal);
      return { ...carrier, normal, offset: dot3(normal, place(scale3(carrier.normal, carrier.offset))) };
    }
    case "cylinder":
      return { ...carrier, at: place(carrier.at), axis: turn(carrier.axis), radius: carrier.radius * scale };
    case "cone":
      return { ...carrier, tip: place(carrier.tip), axis: turn(carrier.axis) };
    case "sphere":
      return { ...carrier, centre: place(carrier.centre), radius: carrier.radius * scale };
    case "torus":
      return {
        ...carrier,
        centre: place(carrier.centre),
        axis: turn(carrier.axis),
        major: carrier.major * scale,
        minor: carrier.minor * scale,
      };
    case "other":
      return carrier;
  }
}

/** Direction cosines a rounding away from 0 or ±1 are put there. */
const tidy = (v: number): number => (Math.abs(v) < TIDY ? 0 : Math.abs(Math.abs(v) - 1) < TIDY ? Math.sign(v) : v);
const tidy3 = (v: Vec3): Vec3 => [tidy(v[0]), tidy(v[1]), tidy(v[2])];

/** The carrier of a face; normals point out of the material. */
export function carrierOf(kernel: Kernel, face: TopoDS_Face): Carrier {
  const oc = kernel.library;
  const surface = new oc.BRepAdaptor_Surface(face, true);
  const flipped = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED;
  const type = String(surface.GetType());
  try {
    if (type === "GeomAbs_Plane") {
      const plane = surface.Plane(),
        position = plane.Position(),
        direction = position.Direction(),
        at = position.Location();
      const sign = (position.Direct() ? 1 : -1) * (flipped ? -1 : 1);
      const normal = tidy3([sign * direction.X(), sign * direction.Y(), sign * direction.Z()]);
      const carrier: Carrier = {
        kind: "plane",
        normal,
        offset: normal[0] * at.X() + normal[1] * at.Y() + normal[2] * at.Z(),
      };
      kernel.release(direction, at, position, plane);
      return carrier;
    }
    if (type === "GeomAbs_Cylinder") {
      const cylinder = surface.Cylinder(),
        position = cylinder.Position(),
        d = position.Direction(),
        at = position.Location();
      const carrier: Carrier = {
        kind: "cylinder",
        at: [at.X(), at.Y(), at.Z()],
        axis: tidy3([d.X(), d.Y(), d.Z()]),
        radius: cylinder.Radius(),
        hollow: position.Direct() === flipped,
      };
      kernel.release(d, at, position, cylinder);
      return carrier;
    }
    if (type === "GeomAbs_Sphere") {
      const sphere = surface.Sphere(),
        at = sphere.Location(),
        centre: Vec3 = [at.X(), at.Y(), at.Z()],
        radius = sphere.Radius();
      kernel.release(at, sphere);
      const { point, normal } = middleOf(surface, flipped);
      return { kind: "sphere", centre, radius, hollow: dot3(normal, sub3(point, centre)) < 0 };
    }
    if (type === "GeomAbs_Cone" || type === "GeomAbs_Torus") return turned(surface, type === "GeomAbs_Cone", flipped);
    return (MAYBE_RINGS.includes(type) && ringOf(surface, flipped)) || { kind: "other", type };
  } finally {
    kernel.release(surface);
  }
}

/**
 * Surfaces that may be rings though the library does not say so: the offset of a ring whose tube reaches over its axis
 * stays an offset, and files hold such a ring as a circle that is turned.
 */
const MAYBE_RINGS: readonly string[] = ["GeomAbs_OffsetSurface", "GeomAbs_SurfaceOfRevolution"];

/** The ring through three circles of a surface that turns with u, where its other points lie on that too. */
function ringOf(surface: BRepAdaptor_Surface, flipped: boolean): Carrier | undefined {
  const [firstU, lastU] = [surface.FirstUParameter(), surface.LastUParameter()],
    [firstV, lastV] = [surface.FirstVParameter(), surface.LastVParameter()];
  const [low, middle, high] = [0.07, 0.52, 0.94].map((share) => ring(surface, firstV + (lastV - firstV) * share));
  const rise = sub3(high!.centre, low!.centre);
  if (length3(rise) < SAME_CARRIER) return undefined;
  const axis = tidy3(unit3(rise)),
    level = (each: { centre: Vec3 }) => dot3(sub3(each.centre, low!.centre), axis);
  const about = circleThrough([low!.radius, 0], [middle!.radius, level(middle!)], [high!.radius, level(high!)]);
  if (!about || about.at[0] < SAME_CARRIER) return undefined;
  const [major, up] = about.at,
    centre = add3(low!.centre, scale3(axis, up));
  const found = ringAbout(surface, flipped, { centre, axis, major, minor: about.radius });
  const fits = RING_PLACES.every(([share, other]) => {
    const u = firstU + (lastU - firstU) * share,
      v = firstV + (lastV - firstV) * other;
    return distanceTo(found, at(surface, u, v)) < SAME_CARRIER;
  });
  return fits ? found : undefined;
}

/** Middle and radius of the circle through three points; none where they lie in line. */
function circleThrough(a: Vec2, b: Vec2, c: Vec2): { at: Vec2; radius: number } | undefined {
  const [p, q] = [sub2(b, a), sub2(c, a)],
    cross = 2 * cross2(p, q);
  if (Math.abs(cross) < SAME_CARRIER) return undefined;
  const [pp, qq] = [dot2(p, p), dot2(q, q)];
  const from: Vec2 = [(q[1] * pp - p[1] * qq) / cross, (p[0] * qq - q[0] * pp) / cross];
  return { at: [a[0] + from[0], a[1] + from[1]], radius: Math.hypot(...from) };
}
/** Shares of the two parameters, in no simple proportion to each other. */
const RING_PLACES = [
  [0.131, 0.717],
  [0.419, 0.237],
  [0.577, 0.883],
  [0.829, 0.391],
  [0.953, 0.549],
] as const;

type RingCarrier = Extract<Carrier, { kind: "torus" }>;
/** A ring with the side on which its material lies, as the middle of the surface shows it. */
function ringAbout(
  surface: BRepAdaptor_Surface,
  flipped: boolean,
  ring: Pick<RingCarrier, "centre" | "axis" | "major" | "minor">,
): RingCarrier {
  const { point, normal } = middleOf(surface, flipped),
    out = sub3(point, ring.centre),
    flat = sub3(out, scale3(ring.axis, dot3(out, ring.axis)));
  const tube = add3(ring.centre, scale3(unit3(flat), ring.major));
  return { kind: "torus", ...ring, hollow: dot3(normal, sub3(point, tube)) < 0 };
}

/** A point of the surface, and the direction out of the material there. */
function middleOf(surface: BRepAdaptor_Surface, flipped: boolean): { point: Vec3; normal: Vec3 } {
  const u = (surface.FirstUParameter() + surface.LastUParameter()) / 2,
    v = (surface.FirstVParameter() + surface.LastVParameter()) / 2;
  const h = DERIVE,
    point = at(surface, u, v);
  // differences are enough to tell which side is meant
  const n = cross3(sub3(at(surface, u + h, v), point), sub3(at(surface, u, v + h), point));
  return { point, normal: scale3(n, flipped ? -1 : 1) };
}

function at(surface: BRepAdaptor_Surface, u: number, v: number): Vec3 {
  const p = surface.EvalD0(u, v);
  const q: Vec3 = [p.X(), p.Y(), p.Z()];
  p.delete();
  return q;
}

/** Centre and radius of the circle that u runs on at one v: opposite points stand half a turn apart. */
function ring(surface: BRepAdaptor_Surface, v: number): { centre: Vec3; radius: number } {
  const a = at(surface, 0, v),
    b = at(surface, Math.PI, v);
  return { centre: scale3(add3(a, b), 0.5), radius: length3(sub3(a, b)) / 2 };
}

/**
 * Cones and tori: this build does not hand out their parameters, so they are read off the surface itself, which is
 * exact.
 */
function turned(surface: BRepAdaptor_Surface, isCone: boolean, flipped: boolean): Carrier {
  if (isCone) {
    const { point, normal } = middleOf(surface, flipped);
    const v = (surface.FirstVParameter() + surface.LastVParameter()) / 2;
    const low = ring(surface, v),
      high = ring(surface, v + Math.max(1, Math.abs(low.radius)));
    const rise = sub3(high.centre, low.centre),
      h = length3(rise),
      signed =
        dot3(
          sub3(at(surface, 0, v + Math.max(1, Math.abs(low.radius))), high.centre),
          sub3(at(surface, 0, v), low.centre),
        ) < 0
          ? -high.radius
          : high.radius;
    const slope = (signed - low.radius) / h;
    const axis = tidy3(scale3(unit3(rise), slope < 0 ? -1 : 1));
    const tip = add3(low.centre, scale3(unit3(rise), -low.radius / slope));
    const out = sub3(sub3(point, tip), scale3(axis, dot3(sub3(point, tip), axis)));
    return { kind: "cone", tip, axis, half: Math.atan(Math.abs(slope)), hollow: dot3(normal, out) < 0 };
  }
  // at v = 0 the tube is farthest from the axis, a quarter turn on as far as its middle; opposite, a tube that reaches
  // over the axis would show its other side
  const far = ring(surface, 0),
    top = ring(surface, Math.PI / 2);
  const axis = tidy3(unit3(sub3(top.centre, far.centre)));
  const major = top.radius,
    minor = far.radius - top.radius;
  return ringAbout(surface, flipped, { centre: far.centre, axis, major, minor });
}
