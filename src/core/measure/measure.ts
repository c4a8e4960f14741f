import { SAME_WAY } from "@/core/geometry/tolerance";
import { footOn, type Line } from "@/core/geometry/line";
import { add3, cross3, distance3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import type { Model } from "@/core/kernel/model";

/** A face, edge or vertex of a model, by its place in it. */
export interface Thing {
  readonly kind: "face" | "edge" | "vertex";
  readonly index: number;
}

/** One answer. Lengths in mm, angles in radians, areas in mm². `between`: what to draw it along. */
export interface Reading {
  readonly what:
    | "radius"
    | "diameter"
    | "area"
    | "length"
    | "angle"
    | "distance"
    | "centre distance"
    | "depth"
    | "half angle"
    | "long axis"
    | "short axis"
    | "x"
    | "y"
    | "z";
  readonly quantity: "length" | "angle" | "area";
  readonly value: number;
  readonly between?: readonly [Vec3, Vec3];
}

const length = (what: Reading["what"], value: number, between?: readonly [Vec3, Vec3]): Reading => ({
  what,
  quantity: "length",
  value,
  ...(between && { between }),
});
const angle = (value: number, what: Reading["what"] = "angle"): Reading => ({ what, quantity: "angle", value });
const turned = (a: Vec3, b: Vec3): number => Math.atan2(length3(cross3(a, b)), dot3(a, b));
const areParallel = (a: Vec3, b: Vec3): boolean => length3(cross3(a, b)) < SAME_WAY;

/**
 * What carries a thing: a plane, a line (with the radius of what turns about it, or the way of an ellipse's longer
 * axis), or a point.
 */
export type Support =
  | { readonly plane: { readonly normal: Vec3; readonly offset: number } }
  | { readonly line: Line; readonly radius?: number; readonly centre?: Vec3; readonly long?: Vec3 }
  | { readonly point: Vec3; readonly radius?: number };

function supportOf(m: Model, thing: Thing): Support | undefined {
  if (thing.kind === "vertex") return { point: m.vertices[thing.index]!.at };
  if (thing.kind === "edge") {
    const { shape, points } = m.edges[thing.index]!;
    if (shape.kind === "circle")
      return { line: { at: shape.centre, along: shape.axis }, radius: shape.radius, centre: shape.centre };
    return shape.kind === "line"
      ? { line: { at: points[0]!, along: unit3(sub3(points[points.length - 1]!, points[0]!)) } }
      : undefined;
  }
  return supportOfCarrier(m.faces[thing.index]!.carrier);
}

/** What carries a face, as distances and angles are taken to it; none for a free surface. */
export function supportOfCarrier(carrier: Carrier): Support | undefined {
  if (carrier.kind === "plane") return { plane: carrier };
  if (carrier.kind === "sphere") return { point: carrier.centre, radius: carrier.radius };
  const axis = axisOf(carrier);
  return (
    axis && {
      line: axis,
      ...(carrier.kind === "cylinder" && { radius: carrier.radius }),
      ...(carrier.kind === "torus" && { centre: carrier.centre }),
      ...(carrier.kind === "elliptic" && { long: carrier.long }),
    }
  );
}

/** Everything that can be said of one thing. */
export function readingsOf(m: Model, thing: Thing): Reading[] {
  if (thing.kind === "vertex") return m.vertices[thing.index]!.at.map((v, i) => length(["x", "y", "z"][i] as "x", v));
  if (thing.kind === "edge") {
    const e = m.edges[thing.index]!;
    const round =
      e.shape.kind === "circle" ? [length("diameter", 2 * e.shape.radius), length("radius", e.shape.radius)] : [];
    return [length("length", e.length), ...round];
  }
  const { carrier, area } = m.faces[thing.index]!,
    list: Reading[] = [...roundnessOf(carrier), { what: "area", quantity: "area", value: area }];
  const axis = axisOf(carrier);
  if (axis && carrier.kind !== "torus") {
    const span = spanAlong(m, thing.index, axis);
    if (span)
      list.push(
        length(carrierHollow(carrier) ? "depth" : "length", span[1] - span[0], [
          add3(axis.at, scale3(axis.along, span[0])),
          add3(axis.at, scale3(axis.along, span[1])),
        ]),
      );
  }
  return list;
}

/** How round a surface is: what its carrier alone tells. */
function roundnessOf(c: Carrier): Reading[] {
  if (c.kind === "cylinder" || c.kind === "sphere")
    return [length("diameter", 2 * c.radius), length("radius", c.radius)];
  if (c.kind === "torus") return [length("radius", c.minor), length("diameter", 2 * c.major)];
  if (c.kind === "elliptic") return c.halves.map((half, i) => length(i ? "short axis" : "long axis", 2 * half));
  return c.kind === "cone" ? [angle(2 * c.half)] : [];
}
const carrierHollow = (c: Carrier): boolean => "hollow" in c && c.hollow;

/** From and to of a face along a line, by the edges around it. */
function spanAlong(m: Model, face: number, l: Line): [number, number] | undefined {
  const along = m.edges
    .filter((e) => e.faces.includes(face))
    .flatMap((e) => e.points.map((p) => dot3(sub3(p, l.at), l.along)));
  return along.length ? [Math.min(...along), Math.max(...along)] : undefined;
}

/** What lies between two things, on their carriers and axes. */
export function readingsBetween(m: Model, a: Thing, b: Thing): Reading[] {
  const p = supportOf(m, a),
    q = supportOf(m, b);
  return p && q ? betweenSupports(p, q) : [];
}

/** What lies between two carriers, axes or points. */
function betweenSupports(p: Support, q: Support): Reading[] {
  if ("plane" in p) return "plane" in q ? ofPlanes(p.plane, q.plane) : ofPlaneAnd(p.plane, q);
  if ("plane" in q) return ofPlaneAnd(q.plane, p);
  if ("line" in p && "line" in q) return ofLines(p, q);
  if ("line" in p && "point" in q) return [toLine(q.point, p.line), ...centres(p, q)];
  if ("point" in p && "line" in q) return [toLine(p.point, q.line), ...centres(p, q)];
  return centres(p, q);
}

const middle = (s: Support): Vec3 | undefined => ("point" in s ? s.point : "line" in s ? s.centre : undefined);

/** Between two centres, and along each axis of space. */
function centres(p: Support, q: Support): Reading[] {
  const [a, b] = [middle(p), middle(q)];
  if (!a || !b) return [];
  const d = sub3(b, a);
  return [
    length("point" in p && "point" in q && !p.radius && !q.radius ? "distance" : "centre distance", length3(d), [a, b]),
    ...d.map((v, i) => length(["x", "y", "z"][i] as "x", Math.abs(v))),
  ];
}

function ofPlanes(p: { normal: Vec3; offset: number }, q: { normal: Vec3; offset: number }): Reading[] {
  if (!areParallel(p.normal, q.normal)) return [angle(Math.PI - turned(p.normal, q.normal))];
  const gap = Math.abs(p.offset - Math.sign(dot3(p.normal, q.normal)) * q.offset),
    foot = scale3(p.normal, p.offset);
  return [length("distance", gap, [foot, scale3(q.normal, q.offset)])];
}

function ofPlaneAnd(plane: { normal: Vec3; offset: number }, s: Exclude<Support, { plane: unknown }>): Reading[] {
  const off = (x: Vec3) => dot3(plane.normal, x) - plane.offset;
  const drop = (x: Vec3): readonly [Vec3, Vec3] => [x, sub3(x, scale3(plane.normal, off(x)))];
  if ("point" in s) return [length("distance", Math.abs(off(s.point)), drop(s.point))];
  const slope = Math.abs(dot3(plane.normal, s.line.along));
  const list: Reading[] =
    slope < SAME_WAY
      ? [length("distance", Math.abs(off(s.line.at)), drop(s.line.at))]
      : [angle(Math.asin(Math.min(1, slope)))];
  // a circle parallel to the plane has a height over it
  if (s.centre && slope > 1 - SAME_WAY) list.unshift(length("distance", Math.abs(off(s.centre)), drop(s.centre)));
  return list;
}

function toLine(point: Vec3, l: Line): Reading {
  const foot = footOn(point, l);
  return length("distance", distance3(point, foot), [point, foot]);
}

function ofLines(p: { line: Line; centre?: Vec3 }, q: { line: Line; centre?: Vec3 }): Reading[] {
  const [a, b] = [p.line, q.line];
  if (areParallel(a.along, b.along)) return [toLine(b.at, a), ...centres(p, q)];
  const n = unit3(cross3(a.along, b.along)),
    gap = Math.abs(dot3(sub3(b.at, a.at), n)),
    t = turned(a.along, b.along);
  return [angle(Math.min(t, Math.PI - t)), length("distance", gap), ...centres(p, q)];
}
