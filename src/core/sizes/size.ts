import type { Carriers } from "./anchor";
import type { SizeReading } from "./kinds/kind";
import { sizeKind, type Size } from "./kinds/kinds";
import type { Lettering } from "./lettering";
import { inOrder } from "@/core/units/same";

export type { SizeReading, SizeValue } from "./kinds/kind";
export { SizeSchema, type Size, type SizeKindName, type SizeOf } from "./kinds/kinds";

/**
 * What a size measures on a part. mm, radians.
 * @param on the carrier of each face of the reference as it stands on the part
 * @returns one reading for each place the size stands for; undefined where it cannot be found there
 */
export const measureSize = (size: Size, on: Carriers): readonly (SizeReading | undefined)[] =>
  sizeKind(size).read(size, on);

/** The faces of the reference that a size stands on. */
export const facesOfSize = (size: Size): readonly string[] => [...new Set(sizeKind(size).faces(size))];

/** A size as it is lettered on the drawing; empty where it cannot be measured. */
export function sizeText(size: Size, on: Carriers, lettering: Lettering): string {
  const readings = measureSize(size, on);
  const first = readings.find((r) => r !== undefined);
  return first ? sizeKind(size).text(size, first, size.things ?? readings.length, lettering) : "";
}

const ANGLES: ReadonlySet<Size["kind"]> = new Set<Size["kind"]>(["angle", "turn", "cone"]);
/** What a size's tolerance and band are measured in. */
export const quantityOfSize = (size: Size): "length" | "angle" => (ANGLES.has(size.kind) ? "angle" : "length");

/** Whether two sizes measure the same thing; what they are called, and how far they may be off, is no matter. */
export const isSameSize = (a: Size, b: Size): boolean => {
  const bare = ({ id: _, tolerance: __, free: ___, lettering: ____, things: _____, ...rest }: Size) =>
    JSON.stringify(rest, inOrder);
  return bare(a) === bare(b);
};
