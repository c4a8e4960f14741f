import { z } from "zod";
import { footOn } from "@/core/geometry/line";
import { cross3, distance3, dot3, length3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { Support } from "@/core/measure/measure";
import { AnchorSchema, isParallel, isSquare, leaningOf, lineOf, supportAt, type Carriers } from "../anchor";
import { letteredLength } from "../lettering";
import { PARALLEL } from "../tolerance";
import { sizeFields, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const SideSchema = z.enum(["near", "far", "centre"]);

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("distance"),
  from: AnchorSchema,
  to: AnchorSchema,
  /** Others like the second end, at the same level: the number is lettered once for all of them. */
  also: z.array(AnchorSchema).max(500).optional(),
  /** Measured square to this flat face, along the axis of this round one, along the longer axis of this ellipse. */
  along: plainText().optional(),
  /** Along the shorter axis of the ellipse. */
  aside: z.boolean().optional(),
  /** Of each end that is round: to its axis, or to its near or far side as the other end sees it. */
  sides: z.tuple([SideSchema, SideSchema]).optional(),
});
type Distance = z.infer<typeof schema>;

/** Where a support stands along a direction; undefined where it has no one place. */
function placeAlong(s: Support, d: Vec3): number | undefined {
  if ("point" in s) return dot3(s.point, d);
  if ("plane" in s)
    return isParallel(s.plane.normal, d) ? s.plane.offset * Math.sign(dot3(s.plane.normal, d)) : undefined;
  if (s.centre && isParallel(s.line.along, d)) return dot3(s.centre, d);
  return isSquare(s.line.along, d) ? dot3(s.line.at, d) : undefined;
}

/** How far a support's round side stands out along a direction. */
const reachAlong = (s: Support, d: Vec3): number => {
  if ("plane" in s || s.radius === undefined) return 0;
  return "line" in s && !isSquare(s.line.along, d) ? 0 : s.radius;
};

/** Distance of two supports, mm: along a direction, else square to what is flat, else the shortest. */
function gapOf(p: Support, q: Support, along: Vec3 | undefined, sides: Distance["sides"]): Measured | undefined {
  const d = along ?? ("plane" in p ? p.plane.normal : "plane" in q ? q.plane.normal : undefined);
  const [first, second] = sides ?? ["centre", "centre"];
  const reach = (s: Support, side: string, way?: Vec3) => {
    if (side === "centre") return 0;
    const r = way ? reachAlong(s, way) : "plane" in s ? 0 : (s.radius ?? 0);
    return side === "far" ? r : -r;
  };
  if (d) {
    const a = placeAlong(p, d),
      b = placeAlong(q, d);
    if (a === undefined || b === undefined) return undefined;
    return { value: Math.abs(b - a) + reach(p, first, d) + reach(q, second, d), side: b < a ? -1 : 1 };
  }
  const apart = shortest(p, q);
  return apart === undefined ? undefined : { value: apart + reach(p, first) + reach(q, second) };
}

interface Measured {
  readonly value: number;
  readonly side?: 1 | -1;
}

function shortest(p: Support, q: Support): number | undefined {
  if ("plane" in p || "plane" in q) return undefined;
  if ("point" in p && "point" in q) return distance3(p.point, q.point);
  if ("line" in p && "line" in q) {
    if (isParallel(p.line.along, q.line.along)) return length3(sub3(footOn(q.line.at, p.line), q.line.at));
    return undefined;
  }
  const [line, point] = ("line" in p ? [p, q] : [q, p]) as [Extract<Support, { line: unknown }>, Support];
  return "point" in point ? distance3(footOn(point.point, line.line), point.point) : undefined;
}

/** The direction along which a distance says that it is measured. */
export function wayAlong({ along, aside }: Pick<Distance, "along" | "aside">, on: Carriers): Vec3 | undefined {
  const given = along === undefined ? undefined : supportAt([along], on),
    axis = lineOf(given)?.along,
    way = leaningOf(given);
  return aside && axis && way ? cross3(axis, way) : way;
}

/** Between parallel faces, axes, edges and corners; also over all, from far side to far side. */
export const distanceKind: SizeKind<Distance> = {
  schema,
  faces: (s) => [...s.from, ...s.to, ...(s.also ?? []).flat(), ...(s.along === undefined ? [] : [s.along])],
  read(s, on) {
    const p = supportAt(s.from, on);
    const given = s.along === undefined ? undefined : supportAt([s.along], on),
      way = wayAlong(s, on);
    // an axis may run either way, a flat face looks one way
    const hasSide = given === undefined || "plane" in given;
    return [s.to, ...(s.also ?? [])].map((to) => {
      const q = supportAt(to, on);
      if (!p || !q || (s.along !== undefined && !way)) return undefined;
      const gap = gapOf(p, q, way, s.sides);
      if (!gap || gap.value < PARALLEL) return undefined;
      const { value, side } = gap;
      return [{ what: "distance", quantity: "length", value, ...(hasSide && side && { side }) }];
    });
  },
  text: (_, [v], __, l) => letteredLength(v!.value, l),
  noun: "the distance",
};
