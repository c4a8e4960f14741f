import { z } from "zod";
import { footOn, type Line } from "@/core/geometry/line";
import { add3, cross3, distance3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, distanceTo, type Carrier } from "@/core/kernel/carrier";
import { supportOfCarrier, type Support } from "@/core/measure/measure";
import { PARALLEL, TOUCHING } from "./tolerance";
import { plainText } from "@/core/units/text";

/**
 * What a size holds on to, by names of the reference's faces: one face, the edge where two meet, the corner of three.
 */
export const AnchorSchema = z.array(plainText().min(1).max(300)).min(1).max(3);
export type Anchor = readonly string[];

/** The carrier of a face as it stands on a part; undefined where the part has no such face. */
export type Carriers = (face: string) => Carrier | undefined;

export const isParallel = (a: Vec3, b: Vec3): boolean => length3(cross3(a, b)) <= PARALLEL;
/** Whether two lines are one. */
export const isCoaxial = (p: Line, q: Line): boolean =>
  isParallel(p.along, q.along) && distance3(footOn(q.at, p), q.at) <= TOUCHING;
export const isSquare = (a: Vec3, b: Vec3): boolean => Math.abs(dot3(a, b)) <= PARALLEL;

/** The plane, line, circle or point that an anchor stands for, from carriers alone; mm. */
export function supportAt(anchor: Anchor, on: Carriers): Support | undefined {
  const carriers: Carrier[] = [];
  for (const face of anchor) {
    const c = on(face);
    if (!c) return undefined;
    carriers.push(c);
  }
  const [a, b, c] = carriers as [Carrier, Carrier?, Carrier?];
  if (!b) return supportOfCarrier(a);
  return c ? cornerOf(a, b, c) : edgeOf(a, b);
}

function cornerOf(a: Carrier, b: Carrier, c: Carrier): Support | undefined {
  if (a.kind !== "plane" || b.kind !== "plane" || c.kind !== "plane") return undefined;
  const det = dot3(a.normal, cross3(b.normal, c.normal));
  if (Math.abs(det) <= PARALLEL) return undefined;
  const sum = add3(
    add3(scale3(cross3(b.normal, c.normal), a.offset), scale3(cross3(c.normal, a.normal), b.offset)),
    scale3(cross3(a.normal, b.normal), c.offset),
  );
  return { point: scale3(sum, 1 / det) };
}

/** Where two carriers meet, or touch. */
function edgeOf(a: Carrier, b: Carrier): Support | undefined {
  if (a.kind === "plane" && b.kind === "plane") {
    const along = cross3(a.normal, b.normal);
    if (length3(along) <= PARALLEL) return undefined;
    const corner = cornerOf(a, b, { kind: "plane", normal: unit3(along), offset: 0 });
    return corner && "point" in corner ? { line: { at: corner.point, along: unit3(along) } } : undefined;
  }
  if (a.kind === "plane" || b.kind === "plane") {
    const [plane, round] = (a.kind === "plane" ? [a, b] : [b, a]) as [Extract<Carrier, { kind: "plane" }>, Carrier];
    return cutOf(plane, round);
  }
  return touching(a, b);
}

/** A plane across a round face gives a circle; one that touches a cylinder gives a line. */
function cutOf(plane: Extract<Carrier, { kind: "plane" }>, round: Carrier): Support | undefined {
  if (round.kind === "sphere") {
    const h = dot3(plane.normal, round.centre) - plane.offset,
      centre = sub3(round.centre, scale3(plane.normal, h)),
      radius = Math.sqrt(Math.max(0, round.radius ** 2 - h ** 2));
    return { line: { at: centre, along: plane.normal }, centre, radius };
  }
  const axis = axisOf(round);
  if (!axis) return undefined;
  if (isParallel(axis.along, plane.normal)) {
    const h = (plane.offset - dot3(plane.normal, axis.at)) / dot3(plane.normal, axis.along),
      centre = add3(axis.at, scale3(axis.along, h)),
      radius = radiusAt(round, h);
    return radius === undefined ? undefined : { line: { at: centre, along: axis.along }, centre, radius };
  }
  if (round.kind !== "cylinder" || !isSquare(axis.along, plane.normal)) return undefined;
  const off = dot3(plane.normal, round.at) - plane.offset;
  if (Math.abs(Math.abs(off) - round.radius) > TOUCHING) return undefined;
  return { line: { at: sub3(round.at, scale3(plane.normal, off)), along: axis.along } };
}

/** How wide a round face is at a height over the point its axis is given by. */
function radiusAt(round: Carrier, h: number): number | undefined {
  if (round.kind === "cylinder") return round.radius;
  if (round.kind === "cone") return Math.abs(h) * Math.tan(round.half);
  if (round.kind !== "torus") return undefined;
  // where the plane touches the ring it does so at its crown
  return Math.abs(Math.abs(h) - round.minor) <= TOUCHING ? round.major : undefined;
}

/** Round faces about one axis meet in a circle; cylinders side by side touch in a line. */
function touching(a: Carrier, b: Carrier): Support | undefined {
  const [p, q] = [axisOf(a), axisOf(b)];
  if (!p || !q || !isParallel(p.along, q.along)) return undefined;
  const apart = distance3(footOn(q.at, p), q.at);
  if (apart <= TOUCHING) {
    const [cone, other] = a.kind === "cone" ? [a, b] : [b, a];
    if (cone.kind === "cone" && other.kind === "cylinder") {
      const centre = add3(cone.tip, scale3(cone.axis, other.radius / Math.tan(cone.half)));
      return { line: { at: centre, along: cone.axis }, centre, radius: other.radius };
    }
    const [ring, tube] = a.kind === "torus" ? [a, b] : [b, a];
    if (ring.kind === "torus" && tube.kind === "cylinder")
      return { line: { at: ring.centre, along: ring.axis }, centre: ring.centre, radius: tube.radius };
    return undefined;
  }
  if (a.kind !== "cylinder" || b.kind !== "cylinder") return undefined;
  const away = scale3(sub3(b.at, footOn(b.at, p)), 1 / apart);
  const at = add3(footOn(b.at, p), scale3(away, a.radius));
  return distanceTo(b, at) <= TOUCHING ? { line: { at, along: p.along } } : undefined;
}

/** The line something turns about, if any. */
export const lineOf = (s: Support | undefined): Line | undefined => (s && "line" in s ? s.line : undefined);

/** The way of which an angle is told: of an ellipse that of its longer axis. */
export const leaningOf = (s: Support | undefined): Vec3 | undefined => (s && "long" in s ? s.long : wayOf(s));

/** The way a support looks: a plane's normal, or along a line. */
export const wayOf = (s: Support | undefined): Vec3 | undefined => {
  if (!s || "point" in s) return undefined;
  return "plane" in s ? s.plane.normal : s.line.along;
};
