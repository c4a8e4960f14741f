import { add3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { spanAlong, type Face } from "@/core/kernel/faces";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isCoaxial } from "@/core/sizes/anchor";
import { isPlane } from "@/core/sizes/candidates/candidate";
import { generalFor } from "@/core/sizes/general";
import type { Names } from "@/core/sizes/names";
import { facesOfSize, type Size } from "@/core/sizes/size";
import { generalOf } from "@/core/sheet/subject";
import { sizeOfPart } from "../../faces/comparison";
import { wholeOf } from "../../given/measured";
import { SAME_LEVEL } from "../../tolerance";
import type { CheckContext } from "../context";

/**
 * Where a bore begins and ends belongs to its diameter: a right diameter in one wall of two, or not all the way
 * through, is not what is drawn. Ends are compared with the faces that bound the bore on the drawing, where those have
 * not moved: a plate that is too thick is told once, as that.
 * @returns sentences that name the bores
 */
export function endsOf(size: Size, context: CheckContext, names: Names): string[] {
  if (size.kind !== "diameter") return [];
  const { body } = context.named;
  const found = new Map<Fault, string[]>();
  for (const face of facesOfSize(size)) {
    const at = body.surfaces.findIndex((s) => s.keys.includes(face));
    const off = at < 0 ? undefined : offEnd(at, context);
    if (off) found.set(off, [...(found.get(off) ?? []), face]);
  }
  return [...found].map(([off, faces]) => `${names.all(faces)} ${FAULTS[off][faces.length > 1 ? 1 : 0]}`);
}

type Fault = "short" | "blind" | "far" | "twice";
const FAULTS: Readonly<Record<Fault, readonly [one: string, many: string]>> = {
  short: ["does not go as far as the drawing shows", "do not go as far as the drawing shows"],
  blind: ["does not go through", "do not go through"],
  far: ["goes further than the drawing shows", "go further than the drawing shows"],
  twice: ["goes through another wall too", "go through another wall too"],
};

/** What is wrong with the ends of a bore. */
function offEnd(at: number, context: CheckContext): Fault | undefined {
  const { named, comparison, submission } = context;
  const bore = named.body.surfaces[at]!,
    state = comparison.faces.faces[at];
  if (!state || !("at" in state) || bore.carrier.kind !== "cylinder" || !bore.carrier.hollow || !goesRound(bore))
    return;
  if (goesOn(bore, context)) return "twice";
  const own = comparison.placed[state.at]!,
    pieces = wholeOf(submission).faces[state.at]!;
  // what has moved meets other faces: that is told as its place
  if (state.state !== "cut" || !bore.reach || !own.reach) return undefined;
  const near = generalFor("length", sizeOfPart(context.reference), generalOf(context.exercise), 0),
    { along } = axisOf(bore.carrier)!,
    [low, high] = spanAlong(own, along, bore.centre)!;
  for (const side of ["low", "high"] as const) {
    const wall = boundary(bore, side, named.body.surfaces);
    const expected = wall === undefined ? undefined : levelOn(partnerOf(wall, context), bore);
    const is = side === "low" ? low : high;
    const end = add3(bore.centre, scale3(along, is));
    if (expected === undefined || goesOnRound(own, end, pieces, context)) continue;
    const further = (is - expected) * (side === "high" ? 1 : -1);
    if (further > near) return "far";
    if (further < -near) return isThrough(bore, named.body.surfaces) ? "blind" : "short";
  }
  return undefined;
}

/** Whether the part has a bore of the same width on the same axis that stands for nothing on the drawing. */
function goesOn(bore: Surface, { comparison }: CheckContext): boolean {
  const axis = axisOf(bore.carrier)!,
    { radius } = bore.carrier as Extract<Carrier, { kind: "cylinder" }>;
  return comparison.faces.extra.some((k) => {
    const carrier = comparison.placed[k]?.carrier;
    if (carrier?.kind !== "cylinder" || !carrier.hollow) return false;
    return isCoaxial(axis, axisOf(carrier)!) && Math.abs(carrier.radius - radius) <= SAME_LEVEL;
  });
}

/** How high over the bore's middle its axis meets a flat face. */
function levelOn(carrier: Carrier | undefined, bore: Surface): number | undefined {
  if (carrier?.kind !== "plane") return undefined;
  const along = axisOf(bore.carrier)!.along,
    slope = dot3(carrier.normal, along);
  // only a face square to the axis ends a bore at one level
  if (Math.abs(slope) < 1 - SAME_LEVEL) return undefined;
  return (carrier.offset - dot3(carrier.normal, bore.centre)) / slope;
}

/** The flat face that one end of a bore lies in. */
const boundary = (bore: Surface, side: "low" | "high", surfaces: readonly Surface[]): number | undefined =>
  bore.beside.find((b) => {
    const level = levelOn(surfaces[b]!.carrier, bore);
    return level !== undefined && Math.abs(level - bore.reach![side]) <= SAME_LEVEL;
  });

/** Where a face stands on the part if it has not moved: what a moved wall does to a bore is no second fault. */
function partnerOf(face: number, { comparison }: CheckContext): Carrier | undefined {
  const state = comparison.faces.faces[face];
  return state?.state === "same" || state?.state === "cut" ? comparison.placed[state.at]?.carrier : undefined;
}

/** Both ends open into flat faces that look away from the bore. */
const isThrough = (bore: Surface, surfaces: readonly Surface[]): boolean =>
  (["low", "high"] as const).every((side) => {
    const wall = boundary(bore, side, surfaces),
      plane = wall === undefined ? undefined : surfaces[wall]!.carrier;
    if (plane?.kind !== "plane") return false;
    return dot3(plane.normal, axisOf(bore.carrier)!.along) * (side === "high" ? 1 : -1) > 0;
  });

/**
 * Whether the part's bore goes on at an end over a chamfer, a rounding or a seat: that is another thing, and no fault
 * of the bore.
 */
function goesOnRound(own: Face, end: Vec3, whole: Surface, { comparison, submission }: CheckContext): boolean {
  const axis = axisOf(own.carrier)!,
    all = wholeOf(submission).faces;
  const isRound = (k: number): boolean => {
    const other = comparison.placed[k],
      line = other && axisOf(other.carrier);
    return other !== undefined && line !== undefined && other.carrier !== own.carrier && isCoaxial(line, axis);
  };
  const isNear = (k: number) => {
    const { centre, reach } = comparison.placed[k]!;
    const length = reach ? reach.high - reach.low : 0;
    return Math.abs(dot3(sub3(centre, end), axis.along)) <= length + SAME_LEVEL;
  };
  return whole.beside.some((k) => {
    if (!comparison.placed[k] || !isNear(k)) return false;
    return isPlane(all[k]!) ? all[k]!.beside.some((b) => all[b] !== whole && isRound(b)) : isRound(k);
  });
}
