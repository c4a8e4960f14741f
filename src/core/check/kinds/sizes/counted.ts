import { axisOf, type Carrier } from "@/core/kernel/carrier";
import type { Face } from "@/core/kernel/faces";
import { goesRound } from "@/core/measure/surfaces";
import { isCoaxial, isParallel } from "@/core/sizes/anchor";
import type { Names } from "@/core/sizes/names";
import { isAsPrinted } from "@/core/sizes/printed";
import { facesOfSize, type Size, type SizeReading } from "@/core/sizes/size";
import type { CheckContext } from "../context";
import type { CheckedValue } from "./kind";

/**
 * How many like things a part has where a diameter is printed for several: those of the drawing that were found, and
 * others of that diameter that run the same way. Nothing where they are as many as printed.
 * @param diameter the diameter as it is judged
 */
export function countedFor(
  size: Size,
  found: readonly (SizeReading | undefined)[],
  diameter: CheckedValue,
  context: CheckContext,
  names: Names,
): CheckedValue | undefined {
  if (size.kind !== "diameter" || size.of.length < 2) return undefined;
  const { comparison, named } = context;
  const own = facesOfSize(size).flatMap((face) => named.body.on(face) ?? []),
    [first] = own;
  if (first?.kind !== "cylinder") return undefined;
  const like = comparison.faces.extra.flatMap((k) => {
    const face = comparison.placed[k];
    return face && isLike(face, first, diameter) ? [face.carrier] : [];
  });
  // what lies on the axis of one of them is a piece of that
  const others = alone(like, own);
  // pieces of one thing stand for it together
  const there = size.of.length - found.filter((r) => r === undefined).length,
    printed = size.things ?? size.of.length,
    measured = (size.things === undefined ? there : Math.ceil((there * printed) / size.of.length)) + others;
  if (measured === printed) return undefined;
  const things = names.like(facesOfSize(size)[0]!) ?? "of them";
  return { what: "count", quantity: "count", printed, measured: [measured], plus: 0, minus: 0, things };
}

function isLike(face: Face, first: Extract<Carrier, { kind: "cylinder" }>, { printed, plus, minus }: CheckedValue) {
  const { carrier } = face;
  return (
    carrier.kind === "cylinder" &&
    carrier.hollow === first.hollow &&
    goesRound(face) &&
    isParallel(carrier.axis, first.axis) &&
    isAsPrinted({ nominal: printed, plus, minus }, 2 * carrier.radius)
  );
}

/** How many axes there are among carriers that none of the known has. */
function alone(carriers: readonly Carrier[], known: readonly Carrier[]): number {
  const seen = [...known];
  return carriers.filter((carrier) => {
    const axis = axisOf(carrier)!;
    if (seen.some((other) => axisOf(other) && isCoaxial(axis, axisOf(other)!))) return false;
    seen.push(carrier);
    return true;
  }).length;
}
