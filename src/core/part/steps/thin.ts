import { FACING } from "../tolerance";
import type { Operation, Thin, WallFinish } from "./fields";
import { curveOf } from "@/core/sketch/sketch";
import { toSpace, type Frame } from "@/core/geometry/frame";
import { add2, distance3, dot3, mid2, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { combine } from "@/core/kernel/boolean";
import { KernelFault } from "@/core/kernel/opencascade";
import { facesOf } from "@/core/kernel/faces";
import { shelled } from "@/core/kernel/shell";
import { roughBoxOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { beyond, isStop, piecesOf, type Stop } from "@/core/kernel/trim";
import type { Outline } from "@/core/sketch/regions";
import { stripOn, wallsOf, type WallEnd } from "@/core/sketch/wall";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { lengthOf, type BuildContext, type BuiltSketch } from "./step";

/** An end not spoken of closes gaps as long as this many thicknesses; longer ones are meant. */
const GAP = 2;

const TOO_THICK = "A wall of this thickness cannot be made along this outline. Make it thinner.";

/** Whether a wall inside a round body would meet itself: the library turns it inside out there without a word. */
function isTooTight(kernel: BuildContext["kernel"], solid: Solid, inwards: number): boolean {
  const sides = facesOf(kernel, solid).filter((f) => f.names[0]?.role === "side");
  const [only] = sides;
  return sides.length === 1 && only?.carrier.kind === "cylinder" && only.carrier.radius <= inwards;
}

/** The wall along the sides of a swept volume: its start and end are left open. The volume stays the caller's. */
function thinned(context: BuildContext, solid: Solid, thin: Thin, step: string): Outcome<Solid> {
  const { kernel } = context,
    thickness = lengthOf(context, thin.thickness, "The thickness of the wall");
  if (!thickness.ok) return thickness;
  const open = solid.names.flatMap((n, i) => (n[0]?.role === "side" ? [] : [i]));
  const inwards = { inside: thickness.value, middle: thickness.value / 2, outside: 0 }[thin.side];
  if (inwards && isTooTight(kernel, solid, inwards)) return refuse("no-wall", TOO_THICK, [step]);
  try {
    if (thin.side === "inside") return done(shelled(kernel, solid, open, thickness.value, step));
    if (thin.side === "outside") return done(shelled(kernel, solid, open, -thickness.value, step));
    const inner = shelled(kernel, solid, open, thickness.value / 2, step),
      outer = shelled(kernel, solid, open, -thickness.value / 2, step);
    const both = combine(kernel, "fuse", inner, [outer]);
    kernel.release(inner.shape, outer.shape);
    return done(both);
  } catch (e) {
    if (!(e instanceof KernelFault)) throw e;
    return refuse("no-wall", TOO_THICK, [step]);
  }
}

/**
 * Walls along the open outlines of a sketch, their ends carried on into the part so that no gap stays.
 * @param sweep makes the volume over a region of the sketch; the caller's until it is handed back
 */
function openWalls(
  context: BuildContext,
  step: { readonly id: string; readonly operation: Operation; readonly thin: Thin },
  sketch: BuiltSketch,
  sweep: (r: Outline) => Outcome<Solid>,
): Outcome<Solid[]> {
  const { kernel, body } = context,
    { thin } = step,
    t = lengthOf(context, thin.thickness, "The thickness of the wall");
  if (!t.ok) return t;
  const [left, right] =
    thin.side === "inside" ? [t.value, 0] : thin.side === "outside" ? [0, t.value] : [t.value / 2, t.value / 2];
  const walls = wallsOf(sketch.diagnosis.sketch, left, right);
  if (!walls.ok) return walls;
  const made: Solid[] = [];
  for (const wall of walls.value) {
    const solid = sweep(wall.region);
    if (!solid.ok) return (kernel.release(...made.map((m) => m.shape)), solid);
    made.push(solid.value);
    if (!body || step.operation === "cut" || step.operation === "keep") continue;
    for (const end of wall.ends) {
      const finish = thin.ends?.[end.of];
      if (finish !== "square") made.push(...carriedOn(context, sketch.frame, end, finish, t.value, step.id, sweep));
    }
  }
  return done(made);
}

/**
 * The volumes over the outlines of a swept step, or its walls along them. `open`: a sketch whose open outlines they
 * follow.
 * @param sweep makes the volume over one outline; after a refusal none is left over
 */
export function sweptVolumes<R>(
  context: BuildContext,
  step: { readonly id: string; readonly operation: Operation; readonly thin?: Thin | undefined },
  outlines: readonly R[],
  open: BuiltSketch | undefined,
  sweep: (r: R | Outline) => Outcome<Solid>,
): Outcome<Solid[]> {
  const { thin } = step,
    made: Solid[] = [];
  if (open && thin) return openWalls(context, { ...step, thin }, open, sweep);
  const failed = <T>(r: T): T => (context.kernel.release(...made.map((m) => m.shape)), r);
  try {
    for (const r of outlines) {
      const solid = sweep(r);
      if (!solid.ok) return failed(solid);
      made.push(solid.value);
      if (!thin) continue;
      const wall = thinned(context, solid.value, thin, step.id);
      if (!wall.ok) return failed(wall);
      context.kernel.release(made.pop()!.shape);
      made.push(wall.value);
    }
    return done(made);
  } catch (e) {
    throw failed(e);
  }
}

/** What is to be added at an end of a wall for it to meet the part. */
function carriedOn(
  context: BuildContext,
  frame: Frame,
  end: WallEnd,
  finish: WallFinish | undefined,
  thickness: number,
  step: string,
  sweep: (r: Outline) => Outcome<Solid>,
): Solid[] {
  const { kernel } = context,
    body = context.body!,
    curve = curveOf(end.of);
  const { min, max } = roughBoxOf(kernel, body.shape),
    reach = finish ? distance3(min, max) + distance3(toSpace(frame, end.left), min) : GAP * thickness;
  const strip = sweep(stripOn(end, { left: `${curve}.left`, right: `${curve}.right` }, reach));
  if (!strip.ok) return [];
  const way = unit3(sub3(toSpace(frame, add2(end.left, end.out)), toSpace(frame, end.left)));
  const free = combine(kernel, "cut", strip.value, [body]),
    pieces = piecesOf(kernel, free);
  const has = (p: Solid, of: string) => p.names.some((list) => list.some((n) => n.step === step && n.of === of));
  const at = toSpace(frame, mid2(end.left, end.right)),
    kept: Solid[] = [];
  const take = (p: Solid) =>
    kept.push({
      shape: p.shape.Located(new kernel.library.TopLoc_Location(), false),
      names: p.names.map((list) => list.map((n) => (n.step === step ? n : { step, role: "end", of: end.of }))),
    });
  let between = false;
  const near = pieces.filter((p) => has(p, "near")),
    whole = near.filter((p) => !has(p, "far"));
  for (const p of near) {
    const faces = finish ? facing(kernel, p, step, at, way) : [],
      [first, second] = faces;
    between ||= second !== undefined;
    // a piece that runs past a face is ended by that face's surface, where that is wanted
    const stop = whole.includes(p)
      ? finish === "first" && second && distanceOf(second, at, way) > distanceOf(first!, at, way) + thickness
        ? first
        : undefined
      : finish === "next"
        ? (second ?? first)
        : first;
    if (!stop) {
      if (whole.includes(p)) take(p);
      continue;
    }
    const cut = beyond(kernel, p, stop, step),
      left = piecesOf(kernel, cut);
    left.filter((q) => has(q, "near")).forEach(take);
    kernel.release(cut.shape, ...left.map((q) => q.shape));
  }
  // through the part to what it meets behind
  if (finish === "next" && whole.length === near.length && !between) {
    const behind = pieces
      .filter((p) => !has(p, "near") && !has(p, "far"))
      .map((p) => ({ p, d: Math.min(...facing(kernel, p, "", at, way).map((c) => distanceOf(c, at, way))) }))
      .sort((a, b) => a.d - b.d);
    if (behind[0]) take(behind[0].p);
  }
  kernel.release(strip.value.shape, free.shape, ...pieces.map((p) => p.shape));
  return kept;
}

/** Faces of a piece that are not of the step itself and lie ahead, the nearest first; planes face the way. */
function facing(kernel: BuildContext["kernel"], piece: Solid, step: string, at: Vec3, way: Vec3): Stop[] {
  return Topology.over(kernel, piece, (t) =>
    piece.names.flatMap((list, i): Stop[] => {
      if (list.some((n) => n.step === step)) return [];
      const c = t.carrier(i);
      if (!isStop(c)) return [];
      if (c.kind !== "plane") return [{ ...c, hollow: !c.hollow }];
      const along = dot3(c.normal, way);
      return Math.abs(along) < FACING
        ? []
        : [along > 0 ? c : { kind: "plane", normal: scale3(c.normal, -1), offset: -c.offset }];
    }),
  ).sort((a, b) => distanceOf(a, at, way) - distanceOf(b, at, way));
}

/** How far along a way a surface is met; of a round one, about where its middle is passed. */
function distanceOf(c: Stop, at: Vec3, way: Vec3): number {
  return c.kind === "plane"
    ? (c.offset - dot3(c.normal, at)) / dot3(c.normal, way)
    : dot3(sub3(c.kind === "cylinder" ? c.at : c.kind === "cone" ? c.tip : c.centre, at), way) -
        ("radius" in c ? c.radius : 0);
}
