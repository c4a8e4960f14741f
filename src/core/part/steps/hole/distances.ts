import { CROSSING } from "../../tolerance";
import { normalOf, toPlane, toSpace, type Frame } from "@/core/geometry/frame";
import { cross2, dot2, sub2, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { EdgeRef, FaceRef } from "@/core/naming/reference";
import { readQuantity } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { edgeOf, faceOf } from "../../reference/resolve";
import type { BuildContext } from "../step";
import type { HoleDistance } from "./schema";

/**
 * A line in the plane that holes start from: points p with normal · p = offset; the normal points the way distances
 * count.
 */
interface Guide {
  readonly normal: Vec2;
  readonly offset: number;
}

/**
 * Where a hole stands that is told by its distances from two edges or faces: counted inwards, from a face into the
 * material, from an edge towards the middle of what is drilled.
 * @param middle of the face or body, which says what inwards is for an edge
 */
export function placeByDistances(
  context: BuildContext,
  seat: Frame,
  middle: Vec3,
  from: readonly [HoleDistance, HoleDistance],
  step: string,
): Outcome<Vec3> {
  const guides: Guide[] = [];
  for (const { of, distance } of from) {
    const guide = "face" in of ? guideOfFace(context, seat, of, step) : guideOfEdge(context, seat, middle, of, step);
    if (!guide.ok) return guide;
    const d = readQuantity(distance, "length", context.unit, context.names);
    if (!d.ok) return d;
    guides.push({ normal: guide.value.normal, offset: guide.value.offset + d.value });
  }
  const [a, b] = guides as [Guide, Guide];
  const k = cross2(a.normal, b.normal);
  if (Math.abs(k) < CROSSING)
    return refuse("parallel", "The two that a hole is placed from run the same way. Pick two that cross.", [step]);
  return done(
    toSpace(seat, [
      (a.offset * b.normal[1] - b.offset * a.normal[1]) / k,
      (b.offset * a.normal[0] - a.offset * b.normal[0]) / k,
    ]),
  );
}

/** Where a flat face meets the plane; inwards is away from its outside. */
function guideOfFace(context: BuildContext, seat: Frame, ref: FaceRef, step: string): Outcome<Guide> {
  const face = faceOf(context, ref);
  if (!face.ok) return face;
  const c = context.topology()!.carrier(face.value);
  const flat: Vec2 | undefined =
    c.kind === "plane" ? sub2(toPlane(seat, sum(seat.origin, c.normal)), toPlane(seat, seat.origin)) : undefined;
  const size = flat ? Math.hypot(...flat) : 0;
  if (c.kind !== "plane" || !flat || size < CROSSING)
    return refuse("not-flat", "A hole is placed from flat faces that stand on the one it starts from.", [step]);
  const normal: Vec2 = [-flat[0] / size, -flat[1] / size];
  const height = c.normal[0] * seat.origin[0] + c.normal[1] * seat.origin[1] + c.normal[2] * seat.origin[2];
  return done({ normal, offset: (height - c.offset) / size });
}

/** A straight edge as it lies over the plane; inwards is where the middle lies. */
function guideOfEdge(context: BuildContext, seat: Frame, middle: Vec3, ref: EdgeRef, step: string): Outcome<Guide> {
  const edge = edgeOf(context, ref);
  if (!edge.ok) return edge;
  const { shape, points } = context.topology()!.edge(edge.value);
  const [a, b] = [points[0]!, points[points.length - 1]!].map((p) => toPlane(seat, p)) as [Vec2, Vec2];
  const along = sub2(b, a),
    length = Math.hypot(...along);
  if (shape.kind !== "line" || length < CROSSING)
    return refuse("not-straight", "A hole is placed from straight edges along the face it starts from.", [step]);
  const left: Vec2 = [-along[1] / length, along[0] / length];
  const side = dot2(left, sub2(toPlane(seat, middle), a)) < 0 ? -1 : 1;
  const normal: Vec2 = [side * left[0], side * left[1]];
  return done({ normal, offset: dot2(normal, a) });
}

const sum = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** The middle of what is drilled: of the face it starts from, or of the body. */
export function middleOf(context: BuildContext, on: FaceRef | undefined, seat: Frame): Vec3 {
  const face = on && faceOf(context, on);
  if (face?.ok) return context.topology()!.face(face.value).centre;
  const n = normalOf(seat);
  return sum(seat.origin, [-n[0], -n[1], -n[2]]);
}
