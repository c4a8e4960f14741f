import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import { EQUAL } from "../tolerance";
import { isCylinder, isPlane, type Candidate, type Cylinder } from "./candidate";

/** A slot: two equal hollow ends, the flat sides that touch both, and the floor it may have. */
interface Slot {
  readonly ends: readonly [Cylinder, Cylinder];
  readonly sides: readonly Surface[];
  readonly floors: readonly Surface[];
}

/** Every slot of a body. */
export function slotsOf({ surfaces }: SizedBody): Slot[] {
  const ends = surfaces.filter(isCylinder).filter((s) => s.carrier.hollow && !goesRound(s));
  return ends.flatMap((cylinder, i) =>
    ends.slice(i + 1).flatMap((b): Slot[] => {
      const [c, d] = [cylinder.carrier, b.carrier];
      if (Math.abs(c.radius - d.radius) > EQUAL || !isParallel(c.axis, d.axis)) return [];
      const shared = cylinder.beside.filter((k) => b.beside.includes(k)).map((k) => surfaces[k]!);
      const sides = shared.filter((s) => isPlane(s) && isSquare(s.carrier.normal, c.axis));
      if (sides.length < 2) return [];
      const own = new Set([cylinder, b, ...sides]);
      const floors = shared.filter((s) => isPlane(s) && s.beside.every((k) => own.has(surfaces[k]!)));
      return [{ ends: [cylinder, b], sides, floors }];
    }),
  );
}

/** Width and length, between the centres or over all. */
export const slotCandidates = (body: SizedBody): Candidate[] =>
  slotsOf(body).flatMap(({ ends: [a, b] }): Candidate[] => {
    const of: [string, string][] = [[keyOf(a), keyOf(b)]];
    return [
      { size: { kind: "slot", of }, cost: 1 },
      { size: { kind: "slot", of, overall: true }, cost: 1.1 },
    ];
  });
