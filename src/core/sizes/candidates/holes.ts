import { axisOf } from "@/core/kernel/carrier";
import { isCoaxial, isParallel } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import type { Surface } from "@/core/measure/surfaces";
import { isCone, isCylinder, isPlane, over, type Candidate, type Plane } from "./candidate";

const isHollow = (s: Surface): boolean => "hollow" in s.carrier && s.carrier.hollow;

function isOnAxisOf(a: Surface, b: Surface): boolean {
  const [p, q] = [axisOf(a.carrier), axisOf(b.carrier)];
  return !!p && !!q && isCoaxial(p, q);
}

/** A hole with all that is in it: bores, sinkings, tips, seats and floors. */
export interface Hole {
  readonly rounds: readonly Surface[];
  /** Flat faces it goes into, and those it ends on or widens at. */
  readonly mouths: readonly Plane[];
  readonly floors: readonly Plane[];
}

/** Every hole of a body: hollow round faces about one axis that follow on each other, over seats between them. */
export function holesOf({ surfaces }: SizedBody): Hole[] {
  const taken = new Set<number>();
  return surfaces.flatMap((start, i): Hole[] => {
    if (taken.has(i) || !isHollow(start) || !(isCylinder(start) || isCone(start))) return [];
    const rounds: number[] = [i];
    taken.add(i);
    const planes = new Set<number>();
    for (const r of rounds)
      for (const b of surfaces[r]!.beside) {
        const other = surfaces[b]!;
        const isNext = isHollow(other) && isOnAxisOf(start, other);
        if (isNext && !taken.has(b)) {
          taken.add(b);
          rounds.push(b);
        }
        if (!isPlane(other) || planes.has(b) || !isParallel(other.carrier.normal, axisOf(start.carrier)!.along))
          continue;
        planes.add(b);
        // over a seat to the next bore
        for (const c of other.beside)
          if (!taken.has(c) && isHollow(surfaces[c]!) && isOnAxisOf(start, surfaces[c]!)) {
            taken.add(c);
            rounds.push(c);
          }
      }
    const flat = [...planes].map((p) => surfaces[p] as Plane);
    const own = rounds.map((r) => surfaces[r]!);
    const isMouth = (p: Plane) => own.every((r) => !r.beside.includes(surfaces.indexOf(p)) || over(p, r.centre) < 0);
    return [{ rounds: own, mouths: flat.filter(isMouth), floors: flat.filter((p) => !isMouth(p)) }];
  });
}

/** Depths, counterbores and countersinks. */
export function holeCandidates(body: SizedBody): Candidate[] {
  return holesOf(body).flatMap(({ rounds, mouths, floors }): Candidate[] => {
    const list: Candidate[] = [];
    const touches = (r: Surface, p: Surface) => r.beside.includes(body.surfaces.indexOf(p));
    for (const surface of rounds)
      for (const mouth of mouths) {
        if (isCone(surface) && touches(surface, mouth))
          list.push({ size: { kind: "countersink", of: [{ cone: keyOf(surface), mouth: keyOf(mouth) }] }, cost: 0.5 });
        if (!isCylinder(surface)) continue;
        for (const floor of floors) {
          if (!touches(surface, floor)) continue;
          const isSeat = rounds.some((o) => o !== surface && touches(o, floor));
          if (isSeat && touches(surface, mouth)) {
            const of = [{ wall: keyOf(surface), seat: keyOf(floor), mouth: keyOf(mouth) }];
            list.push({ size: { kind: "counterbore", of }, cost: 0.5 });
          }
          const of = [{ bore: keyOf(surface), mouth: keyOf(mouth), end: [keyOf(floor)] }];
          list.push({ size: { kind: "depth", of }, cost: 2.4 });
        }
        for (const cone of rounds) {
          if (!isCone(cone) || !touches(surface, cone)) continue;
          const of = [{ bore: keyOf(surface), mouth: keyOf(mouth), end: [keyOf(surface), keyOf(cone)] }];
          list.push({ size: { kind: "depth", of }, cost: 2.4 });
        }
      }
    return list;
  });
}
