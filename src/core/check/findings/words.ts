import { footOn } from "@/core/geometry/line";
import { length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { SHIFTED } from "../tolerance";

const WAYS = [
  ["left", "right"],
  ["to the front", "to the back"],
  ["down", "up"],
] as const;

/** Which way something went, as the front view shows it, and how far, mm; undefined where it stands still. */
export function shiftWords(was: Carrier, is: Carrier): { by: number; way: string } | undefined {
  const shift = shiftOf(was, is);
  if (!shift) return undefined;
  const by = length3(shift);
  if (by <= SHIFTED) return undefined;
  const share = scale3(shift, 1 / by);
  const words = [0, 1, 2].flatMap((i) => (Math.abs(share[i]!) > 0.3 ? [WAYS[i]![share[i]! > 0 ? 1 : 0]!] : []));
  return { by, way: words.join(" and ") };
}

function shiftOf(was: Carrier, is: Carrier): Vec3 | undefined {
  if (was.kind === "plane" && is.kind === "plane") return scale3(was.normal, is.offset - was.offset);
  if (was.kind === "sphere" && is.kind === "sphere") return sub3(is.centre, was.centre);
  const [p, q] = [axisOf(was), axisOf(is)];
  if (!p || !q) return undefined;
  return was.kind === "torus" ? sub3(q.at, p.at) : sub3(footOn(p.at, q), p.at);
}
