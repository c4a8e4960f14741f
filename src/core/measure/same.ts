import { footOn } from "@/core/geometry/line";
import { cross3, distance3, length3, sub3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { SAME_BLEND, SAME_DIRECTION, SAME_PLACE } from "./tolerance";

/** Whether two carriers are one surface with material on the same side. @param size of the reference, mm */
export function sameCarrier(a: Carrier, b: Carrier, size: number): boolean {
  const near = SAME_PLACE * size;
  if (a.kind === "plane" && b.kind === "plane")
    return length3(sub3(a.normal, b.normal)) <= SAME_DIRECTION && Math.abs(a.offset - b.offset) <= near;
  if ("hollow" in a && "hollow" in b && a.hollow !== b.hollow) return false;
  if (a.kind === "sphere" && b.kind === "sphere")
    return distance3(a.centre, b.centre) <= near && Math.abs(a.radius - b.radius) <= near;
  if (a.kind === "cone" && b.kind === "cone")
    return (
      distance3(a.tip, b.tip) <= 10 * near &&
      length3(sub3(a.axis, b.axis)) <= SAME_DIRECTION &&
      Math.abs(a.half - b.half) <= SAME_DIRECTION
    );
  const [p, q] = [axisOf(a), axisOf(b)];
  if (p && q && length3(cross3(p.along, q.along)) <= SAME_DIRECTION) {
    if (a.kind === "torus" && b.kind === "torus")
      return (
        distance3(a.centre, b.centre) <= near &&
        Math.abs(a.major - b.major) <= near &&
        Math.abs(a.minor - b.minor) <= near
      );
    if (a.kind === "elliptic" && b.kind === "elliptic")
      return (
        distance3(footOn(q.at, p), q.at) <= near &&
        Math.abs(a.halves[0] - b.halves[0]) <= near &&
        Math.abs(a.halves[1] - b.halves[1]) <= near &&
        length3(cross3(a.long, b.long)) <= SAME_DIRECTION
      );
    if (a.kind === "cylinder" && b.kind === "cylinder")
      return Math.abs(a.radius - b.radius) <= near && distance3(footOn(q.at, p), q.at) <= near;
  }
  if (a.kind !== "other" || b.kind !== "other" || a.type !== b.type) return false;
  return Math.abs((a.rounding ?? 0) - (b.rounding ?? 0)) <= SAME_BLEND * (a.rounding ?? 0);
}
