import { add3, anyAcross, dot3, type Vec3 } from "@/core/geometry/vector";
import type { Line } from "@/core/geometry/line";
import { mappedCarrier, type Carrier } from "@/core/kernel/carrier";
import type { Surface } from "@/core/measure/surfaces";
import { TOUCHING } from "./tolerance";

export type Of<K extends Carrier["kind"]> = Extract<Carrier, { kind: K }>;
/** Numbers of one surface that change: the carrier it has then. */
export type Moved = Map<Surface, Carrier>;

export const isLike = (a: number, b: number): boolean => Math.abs(a - b) <= TOUCHING;

/** Puts things together that are alike, in the order in which they come. */
export function clustered<T>(list: readonly T[], alike: (a: T, b: T) => boolean): T[][] {
  const groups: T[][] = [];
  for (const x of list) {
    const known = groups.find((g) => alike(g[0]!, x));
    if (known) known.push(x);
    else groups.push([x]);
  }
  return groups;
}

/** Like axes evenly on a circle about a line. */
export interface Ring {
  readonly axes: readonly (readonly Surface[])[];
  readonly radius: number;
  readonly about: Line;
  /** The direction from the middle to one of them. */
  readonly out: (axis: readonly Surface[]) => Vec3;
}

const MAIN: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** A main direction across a line, where one is. */
export const mainAcross = (line: Line): Vec3 =>
  MAIN.find((d) => isLike(dot3(d, line.along), 0)) ?? anyAcross(line.along);

export const shifted = (carrier: Carrier, by: Vec3): Carrier =>
  mappedCarrier(
    carrier,
    (p) => add3(p, by),
    (d) => d,
  );
