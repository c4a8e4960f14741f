import { axisOf, roundingOf } from "@/core/kernel/carrier";
import type { Surface } from "@/core/measure/surfaces";
import { isCoaxial } from "./anchor";
import type { SizedBody } from "./body";
import type { Size } from "./kinds/kinds";
import { EQUAL } from "./tolerance";

/**
 * How many things a size stands for: a bore that another crosses is one in two pieces, a rounding that runs round a
 * corner is one. Faces of one axis, or that follow on each other, count once.
 */
export function thingsOf(size: Size, body: SizedBody): number {
  if (!("of" in size) || !Array.isArray(size.of)) return 1;
  const together = TOGETHER[size.kind];
  if (!together) return size.of.length;
  const own = size.of.map((entry: unknown) => surfaceOf(faceOf(entry), body));
  if (own.some((s) => !s)) return size.of.length;
  const things: Surface[][] = [];
  for (const surface of own as Surface[]) {
    const met = things.filter((thing) => thing.some((other) => together(surface, other, body)));
    for (const thing of met) things.splice(things.indexOf(thing), 1);
    things.push([surface, ...met.flat()]);
  }
  return things.length;
}

/** The face of one place of a size that is its own. */
export function faceOf(entry: unknown): string | undefined {
  if (typeof entry === "string") return entry;
  if (Array.isArray(entry)) return entry[0] as string;
  const named = entry as Record<string, string>;
  return named["slant"] ?? named["bore"] ?? named["wall"] ?? named["cone"];
}

const surfaceOf = (face: string | undefined, { surfaces }: SizedBody): Surface | undefined =>
  surfaces.find((s) => face !== undefined && s.keys.includes(face));

type Together = (a: Surface, b: Surface, body: SizedBody) => boolean;
const TOGETHER: Partial<Record<Size["kind"], Together>> = {
  diameter: (a, b, body) => isOnOneAxis(a, b) && crossing(a, b, body),
  depth: isOnOneAxis,
  counterbore: isOnOneAxis,
  countersink: isOnOneAxis,
  radius: (a, b, body) => (isOnOneAxis(a, b) && a.beside.some((k) => b.beside.includes(k))) || followOn(a, b, body),
};

function isOnOneAxis(a: Surface, b: Surface): boolean {
  const [p, q] = [axisOf(a.carrier), axisOf(b.carrier)];
  return p !== undefined && q !== undefined && isCoaxial(p, q);
}

/** Whether what parts two pieces of one bore is round itself: another bore, not the gap of a fork. */
function crossing(a: Surface, b: Surface, { surfaces }: SizedBody): boolean {
  return a.beside.some((k) => b.beside.includes(k) && axisOf(surfaces[k]!.carrier) && !isOnOneAxis(a, surfaces[k]!));
}

/** Whether a rounding goes on into another, straight away or over a ball or a ring of the same radius at a corner. */
function followOn(a: Surface, b: Surface, { surfaces }: SizedBody): boolean {
  const radius = roundingOf(a.carrier);
  const isAlike = (s: Surface) => Math.abs((roundingOf(s.carrier) ?? Infinity) - radius!) <= EQUAL;
  if (radius === undefined || !isAlike(b)) return false;
  return a.beside.some((k) => surfaces[k] === b || (isAlike(surfaces[k]!) && b.beside.includes(k)));
}
