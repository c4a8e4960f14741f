import { z } from "zod";
import { footOn } from "@/core/geometry/line";
import { cross3, distance3, dot3, length3, sub3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { supportAt, type Carriers } from "../anchor";
import { letteredAngle, letteredLength } from "../lettering";
import { EQUAL } from "../tolerance";
import { sizeFields, times, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const Bevel = z.strictObject({ slant: plainText(), first: plainText(), second: plainText() });
const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("chamfer"),
  /** The slanting faces, each with the two it lies between; the first leg lies on the first of them. */
  of: z.array(Bevel).min(1).max(2000),
  /** Lettered leg × angle, else leg × leg. */
  by: z.enum(["angle", "legs"]),
});
type Chamfer = z.infer<typeof schema>;

/** The legs of a bevel: how far the edge it takes away stands from where it begins on either face. */
function legsOf(bevel: z.infer<typeof Bevel>, on: Carriers): [number, number] | undefined {
  const { slant, first, second } = bevel;
  const corner = supportAt([first, second], on),
    support = supportAt([first, slant], on),
    b = supportAt([second, slant], on);
  if (!corner || !support || !b || !("line" in corner) || !("line" in support) || !("line" in b)) return undefined;
  if (axisOf(on(slant)!)) {
    // turned: circles about one axis; each leg lies in a plane or along a cylinder
    const leg = (p: typeof support) =>
      p.centre && corner.centre
        ? Math.hypot(distance3(p.centre, corner.centre), (p.radius ?? 0) - (corner.radius ?? 0))
        : undefined;
    const [x, y] = [leg(support), leg(b)];
    return x === undefined || y === undefined ? undefined : [x, y];
  }
  const leg = (p: typeof support) => length3(sub3(footOn(corner.line.at, p.line), corner.line.at));
  return [leg(support), leg(b)];
}

/** The angle between a bevel and the first of its faces. */
function angleOf({ slant, first, second }: z.infer<typeof Bevel>, on: Carriers, legs: [number, number]): number {
  const [s, f] = [on(slant)!, on(first)!];
  if (s.kind === "plane" && f.kind === "plane")
    return Math.atan2(length3(cross3(s.normal, f.normal)), dot3(s.normal, f.normal));
  void second;
  return Math.atan2(legs[1], legs[0]);
}

/** A bevel: leg × angle or leg × leg. */
export const chamferKind: SizeKind<Chamfer> = {
  schema,
  faces: (s) => s.of.flatMap((b) => [b.slant, b.first, b.second]),
  read: (s, on) =>
    s.of.map((bevel): SizeReading | undefined => {
      const legs = legsOf(bevel, on);
      if (!legs) return undefined;
      const leg = { what: "leg", quantity: "length", value: legs[0] } as const;
      return s.by === "angle"
        ? [leg, { what: "angle", quantity: "angle", value: angleOf(bevel, on, legs) }]
        : [leg, { what: "other leg", quantity: "length", value: legs[1] }];
    }),
  text(s, [a, b], often, l) {
    const first = letteredLength(a!.value, l);
    if (s.by === "angle") return times(often, `${first} × ${letteredAngle(b!.value)}`);
    const isEven = Math.abs(a!.value - b!.value) <= EQUAL;
    return times(often, isEven ? `${first} × 45°` : `${first} × ${letteredLength(b!.value, l)}`);
  },
  noun: "the chamfer",
};
