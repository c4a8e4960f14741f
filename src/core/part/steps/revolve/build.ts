import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { TURN } from "@/core/geometry/segment";
import { normalOf, toSpace } from "@/core/geometry/frame";
import type { Line } from "@/core/geometry/line";
import { dot3, sub3, unit3 } from "@/core/geometry/vector";
import { revolution } from "@/core/kernel/sweep";
import type { Solid } from "@/core/kernel/solid";
import type { Outline } from "@/core/sketch/regions";
import { turningFault } from "@/core/sketch/profile";
import { lineThrough } from "@/core/sketch/sketch";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { lineOf } from "../../reference/resolve";
import { built } from "../operate";
import { isOpen, regionsFor, sketchFor } from "../profile";
import { angleOf, type BuildContext, type BuiltSketch, type Build } from "../step";
import { sweptVolumes } from "../thin";
import type { RevolveStep } from "./schema";

/** The axis, which must lie in the sketch's plane. */
function axisFor(context: BuildContext, step: RevolveStep, sketch: BuiltSketch): Outcome<Line> {
  let axis: Line;
  if (step.about) {
    const r = lineOf(context, step.about);
    if (!r.ok) return r;
    axis = r.value;
  } else {
    const centre = sketch.diagnosis.sketch.curves.filter((c) => c.kind === "line" && c.construction === "centre-line");
    if (centre.length !== 1)
      return refuse(
        "no-axis",
        centre.length
          ? "The sketch has several centre lines. Pick the one to turn about."
          : "Pick what to turn about: a line of the sketch, an edge, a round face or an axis.",
        [step.id],
      );
    const [a, b] = lineThrough(sketch.diagnosis.sketch, centre[0]!.id).map((p) => toSpace(sketch.frame, p)) as [
      [number, number, number],
      [number, number, number],
    ];
    axis = { at: a, along: unit3(sub3(b, a)) };
  }
  const n = normalOf(sketch.frame);
  if (Math.abs(dot3(axis.along, n)) > SAME_WAY || Math.abs(dot3(sub3(axis.at, sketch.frame.origin), n)) > COINCIDENT)
    return refuse("no-axis", "The axis does not lie in the plane of the sketch.", [step.id]);
  return done(axis);
}

function angles(context: BuildContext, step: RevolveStep): Outcome<[number, number]> {
  const { turn } = step;
  if (turn.kind === "whole") return done([0, TURN]);
  const a = angleOf(context, turn.angle);
  if (!a.ok) return a;
  const b = turn.kind === "two" ? angleOf(context, turn.back) : done(0);
  if (!b.ok) return b;
  const [from, to] = turn.kind === "both" ? [-a.value / 2, a.value / 2] : [-b.value, a.value];
  if (a.value <= SAME_WAY || (turn.kind === "two" && b.value <= SAME_WAY))
    return refuse(
      "bad-number",
      "The angle must be greater than 0. Turn the direction round instead of typing a negative one.",
      [step.id],
    );
  if (to - from > TURN + SAME_WAY) return refuse("bad-number", "The angle must be at most 360°.", [step.id]);
  // all but a whole turn is one
  if (to - from > TURN - SAME_WAY) return done([0, TURN]);
  return done(step.reverse ? [-to, -from] : [from, to]);
}

function volumes(context: BuildContext, step: RevolveStep): Outcome<Solid[]> {
  const { kernel } = context,
    sketch = sketchFor(context, step.sketch);
  if (!sketch.ok) return sketch;
  const open = isOpen(step, sketch.value),
    regions = open ? done([]) : regionsFor(step, sketch.value, context.unit);
  if (!regions.ok) return regions;
  const axis = axisFor(context, step, sketch.value),
    span = angles(context, step);
  if (!axis.ok) return axis;
  if (!span.ok) return span;
  const { frame } = sketch.value;
  // the sketch's own test for profiles to be turned wants a line of a sketch
  const flat = {
    ...sketch.value.diagnosis.sketch,
    curves: [
      { id: "axis", kind: "line" as const, start: onPlane(axis.value, frame, 0), end: onPlane(axis.value, frame, 1) },
    ],
  };
  const sweep = (r: Outline): Outcome<Solid> => {
    const fault = turningFault(flat, r, "axis", context.unit);
    return fault
      ? refuse("bad-profile", fault, [step.sketch])
      : done(revolution(kernel, frame, r, axis.value, span.value[0], span.value[1], step.id, context.seam));
  };
  return sweptVolumes(context, step, regions.value, open ? sketch.value : undefined, sweep);
}

function onPlane(l: Line, frame: BuiltSketch["frame"], k: number): [number, number] {
  const p = sub3([l.at[0] + k * l.along[0], l.at[1] + k * l.along[1], l.at[2] + k * l.along[2]], frame.origin);
  return [dot3(p, frame.x), dot3(p, frame.y)];
}

export const buildRevolve: Build<RevolveStep> = (context, step) => built(context, step, () => volumes(context, step));
