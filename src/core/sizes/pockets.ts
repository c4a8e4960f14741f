import type { Surface } from "@/core/measure/surfaces";
import { isParallel } from "./anchor";
import type { SizedBody } from "./body";
import { isCylinder, isPlane, over, type Plane } from "./candidates/candidate";
import { axisAlong } from "./places";
import { TOUCHING } from "./tolerance";

/** Whether all that a flat face meets rises from it. */
const isFloor = (s: Surface, { surfaces }: SizedBody): s is Plane =>
  isPlane(s) && s.beside.length > 2 && s.beside.every((b) => rises(surfaces[b]!, s));

/** A face that stands on a flat one, with an inner corner between them. */
function rises(surface: Surface, from: Plane): boolean {
  if (over(from, surface.centre) <= TOUCHING) return false;
  if (isPlane(surface)) return over(surface, from.centre) > TOUCHING;
  if ("hollow" in surface.carrier && surface.carrier.hollow) return true;
  // a boss begins at the floor: its middle is half its length away
  if (!isCylinder(surface) || !isParallel(surface.carrier.axis, from.carrier.normal)) return false;
  return over(from, surface.centre) >= BEGINS * (surface.area / (4 * Math.PI * surface.carrier.radius));
}
const BEGINS = 0.9;

/** Walls by the way they look into the pocket: the one that looks right stands at the left. */
const WALLS = [
  ["right wall", "left wall"],
  ["back wall", "front wall"],
  ["upper wall", "lower wall"],
] as const;

/** "floor of the pocket", "left wall of the pocket"; undefined of a face that belongs to none. */
export function pocketName(surface: Surface, body: SizedBody): string | undefined {
  if (isFloor(surface, body)) return "floor of the pocket";
  if (!isPlane(surface)) return undefined;
  // a pad on a floor rises from it too, and looks away
  const isInside = (o: Surface) => isFloor(o, body) && over(surface, o.centre) > TOUCHING;
  if (!surface.beside.some((b) => isInside(body.surfaces[b]!))) return undefined;
  const axis = axisAlong(surface.carrier.normal);
  const wall = axis === undefined ? "slanting wall" : WALLS[axis]![surface.carrier.normal[axis]! > 0 ? 1 : 0]!;
  return `${wall} of the pocket`;
}
