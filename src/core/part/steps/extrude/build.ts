import { normalOf, type Frame } from "@/core/geometry/frame";
import { combine } from "@/core/kernel/boolean";
import { drafted } from "@/core/kernel/draft";
import type { Solid } from "@/core/kernel/solid";
import { prism, prismOnFace } from "@/core/kernel/sweep";
import type { Outline } from "@/core/sketch/regions";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { faceOf, planeOf } from "../../reference/resolve";
import { built } from "../operate";
import { isOpen, regionsFor, sketchFor } from "../profile";
import { angleOf, type BuildContext, type BuiltSketch, type Build } from "../step";
import { sweptVolumes } from "../thin";
import { spanOf, trimmed, type Span } from "./extent";
import type { ExtrudeStep } from "./schema";

/** Where the step begins: a plane, and the volumes over its profiles between two heights. */
interface Base {
  readonly frame: Frame;
  readonly outlines: readonly Outline[];
  readonly open?: BuiltSketch;
  readonly over: (outline: Outline | undefined, span: Span) => Solid;
}

function baseOf(context: BuildContext, step: ExtrudeStep): Outcome<Base> {
  const { kernel } = context;
  if (step.face) {
    const face = faceOf(context, step.face),
      frame = planeOf(context, step.face);
    if (!face.ok) return face;
    return frame.ok
      ? done({
          frame: frame.value,
          outlines: [],
          over: (_, { from, to }) =>
            prismOnFace(kernel, context.topology()!, face.value, normalOf(frame.value), from, to, step.id),
        })
      : frame;
  }
  const sketch = sketchFor(context, step.sketch ?? "");
  if (!sketch.ok) return sketch;
  const { frame } = sketch.value,
    over = (r: Outline | undefined, { from, to }: Span) => prism(kernel, frame, r!, from, to, step.id);
  if (isOpen(step, sketch.value)) return done({ frame, outlines: [], open: sketch.value, over });
  const regions = regionsFor(step, sketch.value, context.unit);
  return regions.ok ? done({ frame, outlines: regions.value, over }) : regions;
}

/** The volumes of the step. The caller releases them. */
function volumes(context: BuildContext, step: ExtrudeStep): Outcome<Solid[]> {
  const { kernel } = context,
    base = baseOf(context, step);
  if (!base.ok) return base;
  const { frame, outlines, open } = base.value,
    span = spanOf(context, step, frame);
  if (!span.ok) return span;
  const angle = step.draft === undefined ? done(0) : angleOf(context, step.draft);
  if (!angle.ok) return angle;
  if (Math.abs(angle.value) > 1.4)
    return refuse("bad-number", "The draft angle must be between -80° and 80°.", [step.id]);
  const lean = (r: Outline | undefined, part: Span): Solid | undefined => {
    const straight = base.value.over(r, part);
    const leaning = drafted(kernel, straight, frame, part.to > 0 ? angle.value : -angle.value);
    kernel.release(straight.shape);
    return leaning;
  };
  const sweep = (outline: Outline | undefined): Outcome<Solid> => {
    const { from, to } = span.value;
    if (!angle.value) return done(base.value.over(outline, span.value));
    // inwards on both sides of the sketch: each side leans for itself
    const parts =
      from < 0 && to > 0
        ? [
            { from: 0, to },
            { from, to: 0 },
          ]
        : [span.value];
    const made = parts.map((part) => lean(outline, part));
    const [first, second] = made;
    if (first && parts.length === 1) return done(first);
    const both = first && second && combine(kernel, "fuse", first, [second]);
    kernel.release(...made.map((m) => m?.shape));
    return both
      ? done(both)
      : refuse(
          "no-draft",
          "The sides cannot lean by this angle: it is too large for the depth, or a side is neither flat nor round.",
          [step.id],
        );
  };
  const made = sweptVolumes<Outline | undefined>(context, step, step.face ? [undefined] : outlines, open, sweep);
  if (!made.ok) return made;
  let kept: Solid[] | undefined;
  try {
    const cut = trimmed(context, step, frame, made.value);
    kept = cut.ok ? cut.value : undefined;
    return cut;
  } finally {
    if (kept !== made.value) kernel.release(...made.value.map((t) => t.shape));
  }
}

export const buildExtrude: Build<ExtrudeStep> = (context, step) => built(context, step, () => volumes(context, step));
