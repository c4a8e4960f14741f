import type { Surface } from "@/core/measure/surfaces";
import { parseFace } from "@/core/naming/names";
import { isParallel, isSquare } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import { isCone, isPlane, type Candidate, type Plane } from "./candidate";

/** Bevels between two faces: flat ones, and cones about an axis. Those that a step made so come first. */
export function bevelCandidates(body: SizedBody): Candidate[] {
  const { surfaces } = body;
  return surfaces.flatMap((s): Candidate[] => {
    if (!isPlane(s) && !isCone(s)) return [];
    const sides = s.beside.map((b) => surfaces[b]!).filter((o) => o.area > s.area && fitsBeside(s, o));
    const isMeant = /(^|\/)(chamfer|bevel)/.test(parseFace(keyOf(s)).role);
    const list: Candidate[] = [];
    for (const [i, a] of sides.entries())
      for (const b of sides.slice(i + 1))
        for (const [first, second] of [
          [a, b],
          [b, a],
        ] as const) {
          const of = [{ slant: keyOf(s), first: keyOf(first), second: keyOf(second) }];
          const cost = isMeant ? 0.5 : 3.4;
          list.push({ size: { kind: "chamfer", of, by: "angle" }, cost });
          list.push({ size: { kind: "chamfer", of, by: "legs" }, cost: cost + 0.1 });
        }
    return list;
  });
}

/** A flat bevel lies between flat faces; a turned one between a flat face and a round one. */
const fitsBeside = (s: Surface, o: Surface): boolean =>
  isPlane(s) ? isPlane(o) && leans(s, o) : isPlane(o) || o.carrier.kind === "cylinder";

const leans = (a: Plane, b: Plane): boolean =>
  !isSquare(a.carrier.normal, b.carrier.normal) && !isParallel(a.carrier.normal, b.carrier.normal);
