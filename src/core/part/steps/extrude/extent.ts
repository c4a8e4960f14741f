import { FACING } from "../../tolerance";
import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { add3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { combine } from "@/core/kernel/boolean";
import { beyond, deeper, isStop, piecesOf, touches } from "@/core/kernel/trim";
import { boxOf, roughBoxOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { readQuantity } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { faceOf, planeOf } from "../../reference/resolve";
import { lengthOf, type BuildContext } from "../step";
import type { ExtrudeStep } from "./schema";

/** How far past the part a Through cut reaches, so that no face of the tool lies on one of the part, mm. */
const CLEARANCE = 1;

/** From and to along the sketch's normal, mm. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** How far the part reaches along the normal, on both sides of the sketch. */
function reach(context: BuildContext, frame: Frame, box = boxOf): Span {
  const { min, max } = box(context.kernel, context.body!.shape);
  const n = normalOf(frame),
    o = dot3(n, frame.origin);
  const along = [0, 1, 2].map((i) => [n[i]! * min[i]!, n[i]! * max[i]!]);
  const low = along.reduce((s, [a, b]) => s + Math.min(a!, b!), -o),
    high = along.reduce((s, [a, b]) => s + Math.max(a!, b!), -o);
  return { from: Math.min(low, 0) - CLEARANCE, to: Math.max(high, 0) + CLEARANCE };
}

const TURN_ROUND = "Turn the direction round instead of typing a negative depth.";

/** How far the volume goes before it is trimmed by faces. */
export function spanOf(context: BuildContext, step: ExtrudeStep, frame: Frame): Outcome<Span> {
  const { extent } = step,
    flip = (s: Span): Span => (step.reverse ? { from: -s.to, to: -s.from } : s);
  switch (extent.kind) {
    case "through":
      if (step.operation === "add" || step.operation === "separate")
        return refuse("through-adds", "Through only makes sense for Cut material and Keep overlap. Use To depth.", [
          step.id,
        ]);
      if (!context.body)
        return refuse("nothing-to-cut", "Through needs a part to go through. Use To depth.", [step.id]);
      return done(reach(context, frame, roughBoxOf));
    case "face":
    case "meet": {
      if (!context.body && !(extent.kind === "face" && "datum" in extent.face))
        return refuse("nothing-to-meet", "There is no part yet to go as far as. Use To depth.", [step.id]);
      if (extent.kind === "meet" && step.operation === "cut")
        return refuse("meet-cuts", "Until it meets the part is for material that is added. Use Through or To depth.", [
          step.id,
        ]);
      const all = context.body ? reach(context, frame) : { from: 0, to: 0 };
      let far = step.reverse ? -all.from : all.to;
      if (extent.kind === "face") {
        const offset =
          extent.offset === undefined ? done(0) : readQuantity(extent.offset, "length", context.unit, context.names);
        if (!offset.ok) return offset;
        const plane = planeOf(context, extent.face);
        if (!plane.ok && plane.refusal.code !== "not-flat") return plane;
        if (plane.ok) {
          const n = normalOf(frame),
            m = normalOf(plane.value),
            along = dot3(sub3(plane.value.origin, frame.origin), n);
          if (Math.abs(Math.abs(dot3(n, m)) - 1) < SAME_WAY) {
            const sign = step.reverse ? -1 : 1,
              end = sign * along + offset.value;
            if (end <= COINCIDENT)
              return refuse("behind", "The face lies behind the sketch. Turn the direction round.", [step.id]);
            return done(flip({ from: 0, to: end }));
          }
          far = Math.max(far, Math.abs(along)) * 2 + 2 * Math.abs(offset.value) + CLEARANCE;
        }
      }
      return far > CLEARANCE + COINCIDENT
        ? done(flip({ from: 0, to: far }))
        : refuse("behind", "There is nothing of the part on this side of the sketch. Turn the direction round.", [
            step.id,
          ]);
    }
    case "depth":
    case "both":
    case "two": {
      const depth = lengthOf(context, extent.depth, "The depth", TURN_ROUND);
      if (!depth.ok) return depth;
      if (extent.kind === "depth") return done(flip({ from: 0, to: depth.value }));
      if (extent.kind === "both")
        return done(
          extent.each ? { from: -depth.value, to: depth.value } : { from: -depth.value / 2, to: depth.value / 2 },
        );
      const back = lengthOf(context, extent.back, "The second depth", TURN_ROUND);
      return back.ok ? done(flip({ from: -back.value, to: depth.value })) : back;
    }
  }
}

/** Volumes cut off where a face or the part stops them: others than those given, or the very list where none is cut. */
export function trimmed(context: BuildContext, step: ExtrudeStep, frame: Frame, solids: Solid[]): Outcome<Solid[]> {
  const { kernel, body } = context,
    { extent } = step,
    n = normalOf(frame),
    way: Vec3 = step.reverse ? scale3(n, -1) : n;
  if (extent.kind === "meet") {
    const kept = solids
      .map((s) => {
        const free = combine(kernel, "cut", s, [body!]);
        const pieces = piecesOf(kernel, free).filter((p) => touches(kernel, p, frame));
        kernel.release(free.shape);
        return pieces;
      })
      .flat();
    return kept.length
      ? done(kept)
      : refuse("meets-at-once", "The sketch lies inside the part: there is nothing to fill before it meets it.", [
          step.id,
        ]);
  }
  if (extent.kind !== "face") return done(solids);
  const plane = planeOf(context, extent.face);
  if (plane.ok && Math.abs(Math.abs(dot3(n, normalOf(plane.value))) - 1) < SAME_WAY) return done(solids);
  const offset =
    extent.offset === undefined ? done(0) : readQuantity(extent.offset, "length", context.unit, context.names);
  if (!offset.ok) return offset;
  // the face itself, or its surface where the face is round, moved along the way
  let carrier;
  if (plane.ok) {
    const m = normalOf(plane.value),
      out = dot3(m, way) > 0 ? m : scale3(m, -1);
    if (dot3(out, way) < FACING)
      return refuse("beside", "This face runs along the direction and never stops it. Pick another.", [step.id]);
    carrier = {
      kind: "plane" as const,
      normal: out,
      offset: dot3(out, add3(plane.value.origin, scale3(way, offset.value))),
    };
  } else if ("face" in extent.face) {
    const face = faceOf(context, extent.face);
    if (!face.ok) return face;
    const surface = context.topology()!.carrier(face.value);
    if (!isStop(surface))
      return refuse("not-flat", "As far as a face takes flat faces, cylinders, cones, balls and rings. Pick another.", [
        step.id,
      ]);
    carrier = deeper(surface, offset.value);
    if (("radius" in carrier ? carrier.radius : "minor" in carrier ? carrier.minor : 1) <= COINCIDENT)
      return refuse("bad-number", "So far beyond the face nothing of its surface is left.", [step.id]);
  } else return plane;
  const pieces = solids.flatMap((s) => {
    const cut = beyond(kernel, s, carrier, step.id);
    const list = piecesOf(kernel, cut).filter((p) => touches(kernel, p, frame));
    kernel.release(cut.shape);
    return list;
  });
  return pieces.length
    ? done(pieces)
    : refuse("behind", "The face does not stop this profile: it lies behind the sketch or beside it.", [step.id]);
}
