import type { BRepAdaptor_Surface, TopoDS_Face } from "replicad-opencascadejs";
import { ROUNDING } from "@/core/geometry/tolerance";
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
import { distanceTo, normalAt, type Carrier, type Elliptic, type Spot } from "./carrier";
import type { Line } from "@/core/geometry/line";
import type { Kernel } from "./opencascade";
import { BLEND_NEAR, BLEND_STEP, DERIVE, SAME_CARRIER, TIDY } from "./tolerance";

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
    const known = type === EXTRUDED ? ellipticOf(surface, flipped) : undefined;
    const ring = MAYBE_RINGS.includes(type) ? ringOf(surface, flipped) : undefined;
    if (known || ring) return (known ?? ring)!;
    const rounding = type === BLENDED ? rollingRadius(surface) : undefined;
    const about = type === TURNED ? axisOfTurning(surface) : undefined;
    return { kind: "other", type, ...(rounding !== undefined && { rounding }), ...(about && { about }) };
  } finally {
    kernel.release(surface);
  }
}

const TURNED = "GeomAbs_SurfaceOfRevolution";
/**
 * Surfaces that may be rings though the library does not say so: the offset of a ring whose tube reaches over its axis
 * stays an offset, and files hold such a ring as a circle that is turned.
 */
const MAYBE_RINGS: readonly string[] = ["GeomAbs_OffsetSurface", TURNED];

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

const EXTRUDED = "GeomAbs_SurfaceOfExtrusion";

/** What an ellipse sweeps, where that is what a surface is: u is the angle on the ellipse, v runs along the sweep. */
function ellipticOf(surface: BRepAdaptor_Surface, flipped: boolean): Elliptic | undefined {
  const v = surface.FirstVParameter(),
    [right, up, left, down] = [0, 1, 2, 3].map((quarter) => at(surface, (quarter * Math.PI) / 2, v)) as FourPlaces;
  const middle = scale3(add3(right, left), 0.5),
    [p, q] = [sub3(right, middle), sub3(up, middle)],
    sweep = sub3(at(surface, 0, v + 1), right);
  const [a, b] = [length3(p), length3(q)],
    near = SAME_CARRIER;
  if (length3(sub3(scale3(add3(up, down), 0.5), middle)) > near || Math.min(a, b) < near) return undefined;
  const isSquare = [dot3(p, q) / b, dot3(p, sweep) / a, dot3(q, sweep) / b].every((cosine) => Math.abs(cosine) < near);
  const fits = RING_PLACES.every(([share]) => {
    const u = 2 * Math.PI * share,
      on = add3(middle, add3(scale3(p, Math.cos(u)), scale3(q, Math.sin(u))));
    return length3(sub3(at(surface, u, v), on)) < near;
  });
  if (!isSquare || !fits) return undefined;
  const { point, normal } = middleOf(surface, flipped);
  const found: Elliptic = {
    kind: "elliptic",
    at: middle,
    axis: tidy3(unit3(sweep)),
    long: tidy3(unit3(a < b ? q : p)),
    halves: a < b ? [b, a] : [a, b],
    hollow: false,
  };
  return { ...found, hollow: dot3(normalAt(found, point)!, normal) < 0 };
}
type FourPlaces = [Vec3, Vec3, Vec3, Vec3];

/** What a surface turns about, by three places a third of a turn apart. */
function axisOfTurning(surface: BRepAdaptor_Surface): Line | undefined {
  const v = (surface.FirstVParameter() + surface.LastVParameter()) / 2,
    third = (2 * Math.PI) / 3;
  const [a, b, c] = [0, 1, 2].map((step) => at(surface, step * third, v)) as [Vec3, Vec3, Vec3];
  const along = cross3(sub3(b, a), sub3(c, a));
  if (length3(along) < ROUNDING) return undefined;
  return { at: scale3(add3(add3(a, b), c), 1 / 3), along: tidy3(unit3(along)) };
}

const BLENDED = "GeomAbs_BSplineSurface";

/**
 * The radius of a ball that rolls along a surface: where the lines of one of its parameters are arcs of one radius. The
 * library comes only near to such surfaces, so the radius is told as finely as that is true.
 */
function rollingRadius(surface: BRepAdaptor_Surface): number | undefined {
  const [firstU, lastU] = [surface.FirstUParameter(), surface.LastUParameter()],
    [firstV, lastV] = [surface.FirstVParameter(), surface.LastVParameter()];
  const place = (u: number, v: number): Vec3 =>
    at(surface, firstU + (lastU - firstU) * u, firstV + (lastV - firstV) * v);
  for (const on of [place, (u: number, v: number) => place(v, u)]) {
    const radii = BLEND_STATIONS.flatMap((v) =>
      BLEND_ARCS.map(([a, b, c]) => radiusThrough(on(a, v), on(b, v), on(c, v))),
    );
    const [least, most] = [Math.min(...radii), Math.max(...radii)];
    if (most - least <= BLEND_NEAR * most) return Math.round((least + most) / 2 / BLEND_STEP) * BLEND_STEP;
  }
  return undefined;
}
const BLEND_STATIONS = [0.09, 0.37, 0.61, 0.94];
const BLEND_ARCS = [
  [0, 0.5, 1],
  [0.12, 0.33, 0.81],
] as const;

/** Of the circle through three places; without end where they lie in line. */
function radiusThrough(a: Vec3, b: Vec3, c: Vec3): number {
  const [p, q, r] = [sub3(b, a), sub3(c, a), sub3(c, b)],
    twice = length3(cross3(p, q));
  return twice < ROUNDING ? Infinity : (length3(p) * length3(q) * length3(r)) / (2 * twice);
}

/**
 * Places on a free surface, by shares of its parameters: how a face that is neither flat nor round moves is seen by
 * them. None on surfaces that the library only comes near to: there they would move by its own tolerance.
 */
export function spotsOf(kernel: Kernel, face: TopoDS_Face): Spot[] {
  const oc = kernel.library,
    surface = new oc.BRepAdaptor_Surface(face, true);
  const sign = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED ? -1 : 1;
  const span = (first: number, last: number) => (share: number) => first + (last - first) * share;
  const [u, v] = [
    span(surface.FirstUParameter(), surface.LastUParameter()),
    span(surface.FirstVParameter(), surface.LastVParameter()),
  ];
  const isExact = !APPROXIMATE.includes(String(surface.GetType()));
  const spots = (isExact ? SPOT_PLACES : []).flatMap(([along, aside]): Spot[] => {
    const { point, normal } = normalOn(surface, u(along), v(aside));
    return length3(normal) < ROUNDING ? [] : [{ at: point, out: scale3(unit3(normal), sign) }];
  });
  kernel.release(surface);
  return spots;
}
const APPROXIMATE: readonly string[] = [BLENDED, "GeomAbs_BezierSurface"];
/** Spread evenly, and no two alike in either parameter (Roberts 2018, by the plastic number). */
const SPOT_PLACES = Array.from(
  { length: 48 },
  (_, i) => [0.7548776662466927, 0.5698402909980532].map((by) => (0.5 + i * by) % 1) as unknown as Vec2,
);

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
  const { point, normal } = normalOn(surface, u, v);
  return { point, normal: scale3(normal, flipped ? -1 : 1) };
}

/** A point of a surface, and a direction square to it there as its parameters run, by middle differences. */
function normalOn(surface: BRepAdaptor_Surface, u: number, v: number): { point: Vec3; normal: Vec3 } {
  const h = DERIVE,
    along = sub3(at(surface, u + h, v), at(surface, u - h, v)),
    aside = sub3(at(surface, u, v + h), at(surface, u, v - h));
  return { point: at(surface, u, v), normal: cross3(along, aside) };
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
