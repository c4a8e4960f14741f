import { z } from "zod";
import { footOn } from "@/core/geometry/line";
import { cross3, dot3, length3, sub3 } from "@/core/geometry/vector";
import { lineOf, supportAt } from "../anchor";
import { letteredLength } from "../lettering";
import { sizeFields, type SizeKind } from "./kind";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("arc"),
  /** The round face, and the two it ends at. */
  of: z.string(),
  ends: z.tuple([z.string(), z.string()]),
  /** The arc goes more than half round. */
  large: z.boolean().optional(),
});
type ArcLength = z.infer<typeof schema>;

/** Length along an arc. */
export const arcKind: SizeKind<ArcLength> = {
  schema,
  faces: (s) => [s.of, ...s.ends],
  read(s, on) {
    const c = on(s.of);
    const [p, q] = s.ends.map((e) => lineOf(supportAt([s.of, e], on)));
    if (c?.kind !== "cylinder" || !p || !q) return [undefined];
    const axis = { at: c.at, along: c.axis };
    const [a, b] = [sub3(p.at, footOn(p.at, axis)), sub3(q.at, footOn(q.at, axis))];
    const turn = Math.atan2(length3(cross3(a, b)), dot3(a, b));
    const value = c.radius * (s.large ? 2 * Math.PI - turn : turn);
    return [[{ what: "arc length", quantity: "length", value }]];
  },
  text: (_, [v], __, l) => `⌒ ${letteredLength(v!.value, l)}`,
  noun: "the arc",
};
