import { stepMark } from "@/core/naming/words";
import { DATUM_FRAMES, faceFrame, normalOf, toSpace, type Frame } from "@/core/geometry/frame";
import type { Line } from "@/core/geometry/line";
import { add3, distance3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { curveOf, lineThrough, pointAt } from "@/core/sketch/sketch";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { refuseLost, type BuildContext } from "../steps/step";
import { findEdge, findFace, findVertex } from "./find";
import type { AnyRef, AxisRef, EdgeRef, FaceRef, PlaneRef, PointRef, VertexRef } from "@/core/naming/reference";

type Context = Pick<BuildContext, "datums" | "sketches" | "topology">;
const noBody = () => refuse("lost-reference", "There is no part yet that this could stand on.");
const gone = (id: string) =>
  refuse(
    "lost-reference",
    `What this stands on, ${stepMark(id)}, is missing or in trouble. Mend it, or pick something else.`,
    [id],
  );

/** A refusal for want of a reference says which. */
function telling<T>(ref: AnyRef, r: Outcome<T>): Outcome<T> {
  if (r.ok || r.refusal.code !== "lost-reference") return r;
  return refuseLost(r.refusal.code, [{ ref, sentence: r.refusal.sentence }], r.refusal.about);
}

/** The place of a named face in explorer order. */
export function faceOf(c: Context, ref: FaceRef): Outcome<number> {
  const t = c.topology();
  return telling(ref, t ? findFace(t, ref) : noBody());
}
export function edgeOf(c: Context, ref: EdgeRef): Outcome<number> {
  const t = c.topology();
  return telling(ref, t ? findEdge(t, ref) : noBody());
}
function vertexOf(c: Context, ref: VertexRef): Outcome<number> {
  const t = c.topology();
  return telling(ref, t ? findVertex(t, ref) : noBody());
}

/** The frame of a plane: of a face, its own with the normal out of the material. */
export function planeOf(context: Context, ref: PlaneRef): Outcome<Frame> {
  if ("datum" in ref) {
    if (ref.datum in DATUM_FRAMES) return done(DATUM_FRAMES[ref.datum as keyof typeof DATUM_FRAMES]);
    const d = context.datums.get(ref.datum);
    return d?.kind === "plane" ? done(d.frame) : telling(ref, gone(ref.datum));
  }
  const face = faceOf(context, ref);
  if (!face.ok) return face;
  const carrier = context.topology()!.carrier(face.value);
  return carrier.kind === "plane"
    ? done(faceFrame(carrier.normal, carrier.offset))
    : refuse("not-flat", "A flat face is needed here; this one is round.");
}

const AXES: Record<string, Vec3> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

export function lineOf(context: Context, ref: AxisRef): Outcome<Line> {
  if ("axis" in ref) {
    const own = AXES[ref.axis];
    if (own) return done({ at: [0, 0, 0], along: own });
    const d = context.datums.get(ref.axis);
    return d?.kind === "axis" ? done(d.line) : telling(ref, gone(ref.axis));
  }
  if ("sketch" in ref) {
    const s = context.sketches.get(ref.sketch);
    if (!s) return telling(ref, gone(ref.sketch));
    const { sketch } = s.diagnosis;
    if (!ref.curve.endsWith("-axis") && sketch.curves.find((k) => k.id === ref.curve)?.kind !== "line")
      return telling(
        ref,
        refuse(
          "lost-reference",
          `The line ${ref.curve} of ${stepMark(ref.sketch)} is no longer there. Pick another axis.`,
          [ref.sketch],
        ),
      );
    const [a, b] = lineThrough(sketch, ref.curve).map((p) => toSpace(s.frame, p)) as [Vec3, Vec3];
    return done({ at: a, along: unit3(sub3(b, a)) });
  }
  if ("edge" in ref) {
    const e = edgeOf(context, ref);
    if (!e.ok) return e;
    const { shape, points } = context.topology()!.edge(e.value);
    if (shape.kind === "circle") return done({ at: shape.centre, along: shape.axis });
    return shape.kind === "line"
      ? done({ at: points[0]!, along: unit3(sub3(points[points.length - 1]!, points[0]!)) })
      : refuse("no-axis", "A straight or round edge is needed here.");
  }
  const f = faceOf(context, ref);
  if (!f.ok) return f;
  const axis = axisOf(context.topology()!.carrier(f.value));
  return axis ? done(axis) : refuse("no-axis", "This face has no axis: a round one is needed.");
}

/** A direction: along an axis, or square to a plane. */
export function directionOf(context: Context, ref: AxisRef): Outcome<Vec3> {
  if ("face" in ref) {
    const f = faceOf(context, ref);
    if (!f.ok) return f;
    const carrier = context.topology()!.carrier(f.value);
    if (carrier.kind === "plane") return done(carrier.normal);
  }
  if ("axis" in ref && context.datums.get(ref.axis)?.kind === "plane")
    return done(normalOf((context.datums.get(ref.axis) as { frame: Frame }).frame));
  const l = lineOf(context, ref);
  return l.ok ? done(l.value.along) : l;
}

export function placeOf(context: Context, ref: PointRef): Outcome<Vec3> {
  if ("sketch" in ref) {
    const s = context.sketches.get(ref.sketch);
    if (!s) return telling(ref, gone(ref.sketch));
    const { sketch } = s.diagnosis,
      curve = curveOf(ref.point);
    if (curve !== "origin" && !sketch.curves.some((k) => k.id === curve))
      return telling(
        ref,
        refuse("lost-reference", `The point ${ref.point} of ${stepMark(ref.sketch)} is no longer there.`, [ref.sketch]),
      );
    return done(toSpace(s.frame, pointAt(sketch, ref.point)));
  }
  if ("point" in ref) {
    if (ref.point === "origin") return done([0, 0, 0]);
    const d = context.datums.get(ref.point);
    return d?.kind === "point" ? done(d.at) : telling(ref, gone(ref.point));
  }
  if ("vertex" in ref) {
    const v = vertexOf(context, ref);
    return v.ok ? done(context.topology()!.point(v.value)) : v;
  }
  const e = edgeOf(context, ref);
  if (!e.ok) return e;
  const { shape, points } = context.topology()!.edge(e.value);
  if (shape.kind === "circle") return done(shape.centre);
  const [a, b] = [points[0]!, points[points.length - 1]!];
  return shape.kind === "line" && distance3(a, b) > 0
    ? done(scale3(add3(a, b), 0.5))
    : refuse("no-point", "A corner, a round edge or a straight one is needed here.");
}
