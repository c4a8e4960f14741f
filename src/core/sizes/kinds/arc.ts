import { z } from "zod";
import { add3, cross3, dot3, length3, scale3, type Vec3 } from "@/core/geometry/vector";
import type { Carrier } from "@/core/kernel/carrier";
import { TOUCHING } from "../tolerance";
import { letteredLength, signOf } from "../lettering";
import { sizeFields, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("arc"),
  /** The round face, and the two it ends at. */
  of: plainText(),
  ends: z.tuple([plainText(), plainText()]),
  /** The arc goes more than half round. */
  large: z.boolean().optional(),
});
type ArcLength = z.infer<typeof schema>;

/** Points of the circle, from its middle, where a flat face ends or touches it. */
function rimsOf(c: Cylinder, end: Carrier): Vec3[] {
  if (end.kind !== "plane" || Math.abs(dot3(end.normal, c.axis)) > TOUCHING) return [];
  const off = end.offset - dot3(end.normal, c.at),
    half = Math.sqrt(Math.max(0, c.radius ** 2 - off ** 2));
  const along = cross3(c.axis, end.normal);
  return [half, -half].map((h) => add3(scale3(end.normal, off), scale3(along, h)));
}
type Cylinder = Extract<Carrier, { kind: "cylinder" }>;

/** Of two points the one further within the material of the other end. */
function within(points: readonly Vec3[], c: Cylinder, other: Carrier): Vec3 | undefined {
  if (other.kind !== "plane") return points[0];
  const out = (p: Vec3) => dot3(other.normal, add3(c.at, p)) - other.offset;
  return [...points].sort((a, b) => out(a) - out(b))[0];
}

/** Length along an arc. */
export const arcKind: SizeKind<ArcLength> = {
  schema,
  faces: (s) => [s.of, ...s.ends],
  read(s, on) {
    const c = on(s.of),
      [first, second] = [on(s.ends[0]), on(s.ends[1])];
    if (c?.kind !== "cylinder" || !first || !second) return [undefined];
    const a = within(rimsOf(c, first), c, second),
      b = within(rimsOf(c, second), c, first);
    if (!a || !b) return [undefined];
    const turn = Math.atan2(length3(cross3(a, b)), dot3(a, b));
    const value = c.radius * (s.large ? 2 * Math.PI - turn : turn);
    return [[{ what: "arc length", quantity: "length", value }]];
  },
  text: (_, [v], __, l) => `${signOf("arc", l)}${letteredLength(v!.value, l)}`,
  noun: "the arc",
};
