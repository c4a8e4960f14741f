import { cross3, dot3, type Vec3 } from "@/core/geometry/vector";
import type { Surface } from "@/core/measure/surfaces";
import { formatFace } from "@/core/naming/names";
import { isParallel, isSquare } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import { EQUAL, PARALLEL } from "../tolerance";
import { measureSize } from "../size";
import { isCone, isCylinder, isPlane, type Candidate, type Cone, type Plane } from "./candidate";

/** Whether a step made it to be a bevel, or an image of one. */
export const isMadeBevel = (s: Surface): boolean => s.names.some((n) => /\/bevel(\/|$)/.test(formatFace(n)));

/** A turned bevel is one up to this share of the radius that it stands on; beyond it is a cone. */
const BEVEL_OF_RADIUS = 0.5;

/** What a flat bevel lies between is wider by so much: the sides of a prism are no bevels of each other. */
const WIDER = 1.2;

/** Bevels between two faces: flat ones, and cones about an axis. Those that a step made so come first. */
export function bevelCandidates(body: SizedBody): Candidate[] {
  const { surfaces } = body;
  return surfaces.flatMap((s): Candidate[] => {
    if (!isPlane(s) && !isCone(s)) return [];
    const isMeant = isMadeBevel(s);
    const sides = s.beside.map((b) => surfaces[b]!).filter((o) => fitsBeside(s, o));
    return sides.flatMap((a, i) =>
      sides.slice(i + 1).flatMap((b) => [...between(s, a, b, isMeant, body), ...between(s, b, a, isMeant, body)]),
    );
  });
}

/** @param first the face that the first leg lies on */
function between(surface: Surface, first: Surface, second: Surface, isMeant: boolean, { on }: SizedBody): Candidate[] {
  if (!runAlong(surface, first, second)) return [];
  const of = [{ slant: keyOf(surface), first: keyOf(first), second: keyOf(second) }];
  const size = { kind: "chamfer" as const, of };
  const legs = measureSize({ ...size, id: "", by: "legs" }, on)[0]?.map((v) => v.value);
  if (!legs || Math.min(...legs) <= EQUAL) return [];
  const isSmall = isCone(surface)
    ? isSmallOnShaft(surface, [first, second], legs)
    : [first, second].every((o) => o.area > WIDER * surface.area);
  if (!isMeant && !isSmall) return [];
  // at half a right angle everybody reads one figure
  const isEven = isCone(surface) && !surface.carrier.hollow && Math.abs(legs[0]! - legs[1]!) <= EQUAL;
  const cost = isMeant || isEven ? 0.5 : 3.4;
  return [
    { size: { ...size, by: "angle" }, cost, ...(isEven && { asRead: true }) },
    { size: { ...size, by: "legs" }, cost: cost + 0.1 },
  ];
}

function isSmallOnShaft(s: Cone, sides: readonly Surface[], legs: readonly number[]): boolean {
  const shaft = sides.find(isCylinder)?.carrier;
  return !!shaft && !s.carrier.hollow && Math.max(...legs) <= BEVEL_OF_RADIUS * shaft.radius;
}

/** A flat bevel lies between flat faces; a turned one between a flat face and a round one. */
const fitsBeside = (s: Surface, o: Surface): boolean =>
  isPlane(s) ? isPlane(o) && leans(s, o) : isPlane(o) || o.carrier.kind === "cylinder";

/** Whether both edges of a flat bevel run one way: faces that come together in a corner have no leg there. */
const runAlong = (s: Surface, a: Surface, b: Surface): boolean =>
  ![s, a, b].every(isPlane) || isFlat([s, a, b].map((f) => (f as Plane).carrier.normal));
const isFlat = ([a, b, c]: readonly Vec3[]): boolean => Math.abs(dot3(cross3(a!, b!), c!)) <= PARALLEL;

const leans = (a: Plane, b: Plane): boolean =>
  !isSquare(a.carrier.normal, b.carrier.normal) && !isParallel(a.carrier.normal, b.carrier.normal);
