import { z } from "zod";
import { supportAt } from "../anchor";
import { letteredAngle, letteredLength, signOf } from "../lettering";
import { sizeFields, times, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const One = z.strictObject({ cone: plainText(), mouth: plainText() });
const schema = z.strictObject({ ...sizeFields, kind: z.literal("countersink"), of: z.array(One).min(1).max(2000) });
type Countersink = z.infer<typeof schema>;

/** A coned sinking: how wide it opens, and its angle. */
export const countersinkKind: SizeKind<Countersink> = {
  schema,
  faces: (s) => s.of.flatMap((h) => [h.cone, h.mouth]),
  read: (s, on) =>
    s.of.map(({ cone, mouth }): SizeReading | undefined => {
      const c = on(cone),
        rim = supportAt([mouth, cone], on);
      if (c?.kind !== "cone" || !rim || !("line" in rim) || rim.radius === undefined) return undefined;
      return [
        { what: "countersink", quantity: "length", value: 2 * rim.radius },
        { what: "countersink angle", quantity: "angle", value: 2 * c.half },
      ];
    }),
  text: (_, [wide, angle], often, l) =>
    times(often, `${signOf("countersink", l)}⌀${letteredLength(wide!.value, l)} × ${letteredAngle(angle!.value)}`),
  noun: "the countersink",
};
