import { z } from "zod";
import { letteredLength } from "../lettering";
import { distanceKind } from "./distance";
import { sizeFields, times, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const Ends = z.tuple([plainText(), plainText()]);
const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("slot"),
  /** The two round ends of each. */
  of: z.array(Ends).min(1).max(500),
  /** Length over all, else between the centres. */
  overall: z.boolean().optional(),
});
type Slot = z.infer<typeof schema>;

/** A slot: its width and its length. */
export const slotKind: SizeKind<Slot> = {
  schema,
  faces: (s) => s.of.flat(),
  read: (s, on) =>
    s.of.map(([a, b]): SizeReading | undefined => {
      const [p, q] = [on(a), on(b)];
      const [gap] = distanceKind.read({ id: "", kind: "distance", from: [a], to: [b] }, on);
      if (p?.kind !== "cylinder" || q?.kind !== "cylinder" || !gap) return undefined;
      const length = gap[0]!.value + (s.overall ? p.radius + q.radius : 0);
      return [
        { what: "width", quantity: "length", value: p.radius + q.radius },
        { what: s.overall ? "length over all" : "length between centres", quantity: "length", value: length },
      ];
    }),
  text: (_, [wide, long], often, l) =>
    times(often, `slot ${letteredLength(wide!.value, l)} × ${letteredLength(long!.value, l)}`),
  noun: "the slot",
};
