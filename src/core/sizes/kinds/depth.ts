import { z } from "zod";
import { AnchorSchema } from "../anchor";
import { depthText } from "../lettering";
import { distanceKind } from "./distance";
import { sizeFields, times, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const One = z.strictObject({
  /** The round face that is so deep. */
  bore: plainText(),
  /** The flat face it goes into. */
  mouth: plainText(),
  /** Its floor, or its shoulder as the edge of bore and cone: never the tip. */
  end: AnchorSchema,
});
const schema = z.strictObject({ ...sizeFields, kind: z.literal("depth"), of: z.array(One).min(1).max(2000) });
type Depth = z.infer<typeof schema>;

/** How deep a hole or recess goes, to its shoulder. */
export const depthKind: SizeKind<Depth> = {
  schema,
  faces: (s) => s.of.flatMap((h) => [h.bore, h.mouth, ...h.end]),
  read: (s, on) =>
    s.of.map(({ bore, mouth, end }) => {
      if (!on(bore)) return undefined;
      const [reading] = distanceKind.read({ id: "", kind: "distance", from: [mouth], to: end }, on);
      return reading && [{ ...reading[0]!, what: "depth" }];
    }),
  text: (_, [v], often, l) => times(often, depthText(v!.value, l).trim()),
  noun: "the depth",
};
