import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { normalOf, toSpace, type Frame } from "@/core/geometry/frame";
import { add3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { roughBoxOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { placeOf, planeOf } from "../../reference/resolve";
import { built } from "../operate";
import { sketchFor } from "../profile";
import { angleOf, lengthOf, type BuildContext, type Build } from "../step";
import { drilled, STAND_OUT, type Bore } from "./tool";
import { middleOf, placeByDistances } from "./distances";
import { isHolePoint, type HoleStep } from "./schema";

/** The plane holes start from, its normal out of the material. */
function seatOf(context: BuildContext, step: HoleStep): Outcome<Frame> {
  if (step.on) return planeOf(context, step.on);
  if (!step.sketch) return refuse("no-plane", "Pick the face the hole is drilled into.", [step.id]);
  const sketch = sketchFor(context, step.sketch);
  return sketch.ok ? done(sketch.value.frame) : sketch;
}

/** Places of the holes with their ids. */
function placesOf(context: BuildContext, step: HoleStep, seat: Frame): Outcome<{ id: string; at: Vec3 }[]> {
  const list: { id: string; at: Vec3 }[] = [];
  if (step.sketch) {
    const sketch = sketchFor(context, step.sketch);
    if (!sketch.ok) return sketch;
    for (const c of sketch.value.diagnosis.sketch.curves)
      if (isHolePoint(c)) list.push({ id: c.id, at: toSpace(sketch.value.frame, c.at) });
    if (!list.length && !step.points.length)
      return refuse("no-points", "The sketch holds no points. Draw a point where each hole shall be.", [step.sketch]);
  }
  const n = normalOf(seat);
  for (const p of step.points) {
    if ("at" in p) {
      list.push({ id: p.id, at: toSpace(seat, p.at) });
      continue;
    }
    if ("from" in p) {
      const on = step.on && "face" in step.on ? step.on : undefined;
      const at = placeByDistances(context, seat, middleOf(context, on, seat), p.from, step.id);
      if (!at.ok) return at;
      list.push({ id: p.id, at: at.value });
      continue;
    }
    const r = placeOf(context, p.on);
    if (!r.ok) return r;
    // the hole starts at the face, right over or under the point
    list.push({ id: p.id, at: add3(r.value, scale3(n, -dot3(sub3(r.value, seat.origin), n))) });
  }
  return list.length ? done(list) : refuse("no-points", "Click where the hole shall be.", [step.id]);
}

function boreOf(context: BuildContext, step: HoleStep): Outcome<Omit<Bore, "depth" | "back">> {
  const diameter = lengthOf(context, step.diameter, "The diameter");
  if (!diameter.ok) return diameter;
  const radius = diameter.value / 2;
  let tip: number | undefined;
  if (step.tip !== undefined) {
    const t = angleOf(context, step.tip);
    if (!t.ok) return t;
    if (t.value < 0.1 || t.value >= Math.PI)
      return refuse("bad-number", "The angle of the tip must be between 6° and 180°.", [step.id]);
    tip = t.value;
  }
  if (step.head.kind === "plain") return done({ radius, ...(tip !== undefined && { tip }) });
  const wide = lengthOf(context, step.head.diameter, `The ${step.head.kind} diameter`);
  if (!wide.ok) return wide;
  if (wide.value / 2 <= radius + COINCIDENT)
    return refuse("bad-number", `The ${step.head.kind} must be wider than the hole.`, [step.id]);
  if (step.head.kind === "counterbore") {
    const deep = lengthOf(context, step.head.depth, "The counterbore's depth");
    return deep.ok
      ? done({
          radius,
          ...(tip !== undefined && { tip }),
          head: { kind: "counterbore", radius: wide.value / 2, depth: deep.value },
        })
      : deep;
  }
  const angle = angleOf(context, step.head.angle);
  if (!angle.ok) return angle;
  if (angle.value < 0.1 || angle.value > 3)
    return refuse("bad-number", "The countersink's angle must be between 6° and 172°.", [step.id]);
  return done({
    radius,
    ...(tip !== undefined && { tip }),
    head: { kind: "countersink", radius: wide.value / 2, depth: (wide.value / 2 - radius) / Math.tan(angle.value / 2) },
  });
}

/** How deep the full diameter goes. `open`: out at the other side. */
function depthOf(context: BuildContext, step: HoleStep, seat: Frame): Outcome<{ depth: number; open: boolean }> {
  const n = normalOf(seat);
  if (step.extent.kind === "depth") {
    const d = lengthOf(context, step.extent.depth, "The depth");
    return d.ok ? done({ depth: d.value, open: false }) : d;
  }
  if (step.extent.kind === "face") {
    const face = planeOf(context, step.extent.face);
    if (!face.ok) return face;
    if (Math.abs(Math.abs(dot3(n, normalOf(face.value))) - 1) > SAME_WAY)
      return refuse("not-flat", "As far as a face takes a face parallel to the one the hole starts from.", [step.id]);
    const depth = dot3(sub3(seat.origin, face.value.origin), n) * (step.reverse ? -1 : 1);
    return depth > COINCIDENT
      ? done({ depth, open: false })
      : refuse("behind", "That face lies behind the hole.", [step.id]);
  }
  const { min, max } = roughBoxOf(context.kernel, context.body!.shape);
  return done({ depth: Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) + 1, open: true });
}

function volumes(context: BuildContext, step: HoleStep): Outcome<Solid[]> {
  const seat = seatOf(context, step);
  if (!seat.ok) return seat;
  const places = placesOf(context, step, seat.value),
    bore = boreOf(context, step),
    depth = depthOf(context, step, seat.value);
  if (!places.ok) return places;
  if (!bore.ok) return bore;
  if (!depth.ok) return depth;
  const into = scale3(normalOf(seat.value), step.reverse ? 1 : -1);
  const { tip, ...rest } = bore.value;
  // behind the start of a hole that is turned round, or begins at a plane, there may be material that stays
  const standOut = step.on && "face" in step.on && !step.reverse ? STAND_OUT : 0;
  // a through hole has no bottom to cone; without a head it goes out at both sides, wherever it starts
  const whole: Bore = {
    ...rest,
    depth: depth.value.depth,
    ...(tip !== undefined && !depth.value.open && { tip }),
    back: depth.value.open && !rest.head && !step.reverse ? depth.value.depth : standOut,
  };
  if (whole.head && whole.head.depth >= whole.depth)
    return refuse("bad-number", `The ${whole.head.kind} is deeper than the hole.`, [step.id]);
  if (step.thread?.depth !== undefined) {
    const thread = lengthOf(context, step.thread.depth, "The depth of the thread");
    if (!thread.ok) return thread;
    if (!depth.value.open && thread.value > depth.value.depth + COINCIDENT)
      return refuse("bad-number", "The thread is deeper than the hole. Make the hole deeper or the thread shorter.", [
        step.id,
      ]);
  }
  return done(places.value.map((p) => drilled(context.kernel, p.at, into, seat.value.x, whole, step.id, p.id)));
}

export const buildHole: Build<HoleStep> = (context, step) =>
  built(context, { id: step.id, operation: "cut", bodies: step.bodies }, () => volumes(context, step));
