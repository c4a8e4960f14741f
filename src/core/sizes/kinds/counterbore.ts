import { z } from "zod";
import { depthText, letteredLength, signOf } from "../lettering";
import { distanceKind } from "./distance";
import { sizeFields, times, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const One = z.strictObject({ wall: plainText(), seat: plainText(), mouth: plainText() });
const schema = z.strictObject({ ...sizeFields, kind: z.literal("counterbore"), of: z.array(One).min(1).max(2000) });
type Counterbore = z.infer<typeof schema>;

/** A flat sinking: its diameter and its depth. */
export const counterboreKind: SizeKind<Counterbore> = {
  schema,
  faces: (s) => s.of.flatMap((h) => [h.wall, h.seat, h.mouth]),
  read: (s, on) =>
    s.of.map(({ wall, seat, mouth }): SizeReading | undefined => {
      const c = on(wall);
      const [deep] = distanceKind.read({ id: "", kind: "distance", from: [mouth], to: [seat] }, on);
      if (c?.kind !== "cylinder" || !deep) return undefined;
      return [
        { what: "counterbore", quantity: "length", value: 2 * c.radius },
        { what: "counterbore depth", quantity: "length", value: deep[0]!.value },
      ];
    }),
  text: (_, [wide, deep], often, l) =>
    times(often, `${signOf("counterbore", l)}⌀${letteredLength(wide!.value, l)}${depthText(deep!.value, l)}`),
  noun: "the counterbore",
};
