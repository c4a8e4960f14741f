import type { Vec3 } from "@/core/geometry/vector";
import { EQUAL } from "@/core/sizes/tolerance";
import { freeAmong, sizesLeftFree } from "@/core/sizes/free";
import { printedNumbers, printedText } from "@/core/sizes/printed";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { isCoaxial, type Carriers } from "@/core/sizes/anchor";
import { nameOfSize, namesOfFaces, type Names } from "@/core/sizes/names";
import { facesOfSize, measureSize, type Size, type SizeReading, type SizeValue } from "@/core/sizes/size";
import { sizeOfPart } from "../../faces/comparison";
import { generalOf, letteringOf } from "@/core/sheet/subject";
import type { CheckContext } from "../context";
import { countedFor } from "./counted";
import { endsOf } from "./ends";
import { isWithin, type CheckedSize, type CheckedValue, type SizesEvidence } from "./kind";

/** Every printed size as the submission has it, face by face. */
export function checkSizes(context: CheckContext): SizesEvidence {
  const { comparison, named, sizes } = context;
  // facets show no faces that a size could stand on
  if (context.submission.facets) return { check: "sizes", verdict: "unknown", off: 0, sizes: [] };
  const names = namesOfFaces(named.body, named.features);
  const on = carriersOn(context);
  const asked = sizesLeftFree(sizes, freeAmong(context.exercise.free, named.body.surfaces), named.body.surfaces);
  const list = asked.map((s) => checkedSize(s, context, on, names));
  const judged = list.filter((s) => s.state !== "free"),
    off = judged.filter((s) => s.state !== "met").length;
  const isScaled = comparison.finding === "scaled";
  return {
    check: "sizes",
    verdict: off || isScaled ? "missed" : "met",
    off: isScaled ? judged.length : off,
    sizes: list,
    ...(isScaled && { scale: comparison.scale }),
  };
}

/** The carrier of each face of the reference as the submission has it. */
function carriersOn({ comparison, named }: CheckContext): Carriers {
  const at = new Map<string, number>();
  named.body.surfaces.forEach((s, i) => s.keys.forEach((key) => at.set(key, i)));
  return (face) => {
    const i = at.get(face) ?? named.body.surfaces.findIndex((s) => s.carrier === named.body.on(face));
    const state = comparison.faces.faces[i];
    return state && "at" in state ? comparison.placed[state.at]?.carrier : undefined;
  };
}

/**
 * Carriers for a distance whose faces are not all there, from what is: a direction is the reference's own, since the
 * part lies on it, and an axis is shown by whatever else turns about it. One fault costs the sizes of what is at fault.
 */
function standIns(size: Size, { named, comparison }: CheckContext, on: Carriers): Carriers {
  if (size.kind !== "distance" || size.sides?.some((side) => side !== "centre")) return on;
  const { surfaces } = named.body;
  const onAxisOf = (lost: Carrier): Carrier | undefined => {
    const axis = axisOf(lost);
    if (lost.kind !== "cylinder" || !axis) return undefined;
    for (const [i, other] of surfaces.entries()) {
      const state = comparison.faces.faces[i],
        own = axisOf(other.carrier);
      if (!state || !("at" in state) || !own || !isCoaxial(axis, own)) continue;
      const line = axisOf(comparison.placed[state.at]!.carrier);
      if (line) return { ...lost, at: line.at, axis: line.along };
    }
    return undefined;
  };
  return (face) => {
    const known = on(face),
      lost = named.body.on(face);
    if (known || !lost) return known;
    return face === size.along ? lost : onAxisOf(lost);
  };
}

function checkedSize(size: Size, context: CheckContext, on: Carriers, names: Names): CheckedSize {
  const { exercise, named, reference } = context;
  // sentences say in words what signs say on the drawing
  const lettering = { ...letteringOf(exercise), signs: false };
  const wanted = measureSize(size, named.body.on)[0];
  const base = { id: size.id, text: printedText(size, named.body.on, lettering), name: nameOfSize(size, names) };
  // a size the reference has lost cannot be asked for
  if (!wanted) return { ...base, state: "free", values: [] };
  const found = measureSize(size, standIns(size, context, on));
  const numbers = printedNumbers(size, wanted, lettering, generalOf(exercise), sizeOfPart(reference) / 2);
  const values = numbers.map(({ what, quantity, nominal, text, plus, minus }, i): CheckedValue => {
    const measured = distinct(found, i, wanted[i]!.side);
    return { what, quantity, printed: nominal, text, measured, plus, minus };
  });
  const judged = values[0] && size.free === undefined ? values[0] : undefined;
  const counted = judged && countedFor(size, found, judged, context, names),
    ends = judged ? endsOf(size, context, names) : [];
  if (counted) values.push(counted);
  const state = stateOf(size, values, found, ends);
  const at = state === "missed" || state === "lost" ? placeOf(size, context) : undefined;
  const places = found.filter((r) => r === undefined).length,
    lacking = places > 0 && places < found.length ? { places, of: found.length } : undefined;
  return { ...base, values, state, ...(ends.length && { ends }), ...(lacking && { lacking }), ...(at && { at }) };
}

/** The middle of the first face that a size stands on. */
function placeOf(size: Size, { named }: CheckContext): Vec3 | undefined {
  const [face] = facesOfSize(size);
  const carrier = face === undefined ? undefined : named.body.on(face);
  const found = named.body.surfaces.find((s) => s.keys.includes(face!) || s.carrier === carrier);
  return found?.centre;
}

function stateOf(
  { free }: Size,
  values: readonly CheckedValue[],
  found: readonly (SizeReading | undefined)[],
  ends: readonly string[],
): CheckedSize["state"] {
  if (free === true) return "free";
  if (free) return values.some((v) => v.measured.some((m) => m < free.from || m > free.to)) ? "missed" : "free";
  if (found.some((r) => r === undefined)) return found.every((r) => r === undefined) ? "lost" : "missed";
  return !ends.length && values.every((v) => v.measured.every((m) => isWithin(v, m))) ? "met" : "missed";
}

/** The i-th number at each place, those that agree once; below nought where its ends lie the other way round. */
function distinct(found: readonly (SizeReading | undefined)[], i: number, side: SizeValue["side"]): number[] {
  const list: number[] = [];
  for (const reading of found) {
    const is = reading?.[i];
    if (!is) continue;
    const isTurned = side !== undefined && is.side !== undefined && is.side !== side,
      value = isTurned ? -is.value : is.value;
    if (!list.some((o) => Math.abs(o - value) <= EQUAL)) list.push(value);
  }
  return list;
}
