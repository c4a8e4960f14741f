import { z } from "zod";
import { letteredLength } from "../lettering";
import { roundingOf } from "@/core/kernel/carrier";
import { each, sizeFields, times, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("radius"),
  /** Round faces of one size: cylinders, roundings, rings (their section), balls. */
  of: z.array(plainText()).min(1).max(2000),
  ball: z.boolean().optional(),
});
type Radius = z.infer<typeof schema>;

/** Of a cylinder, a rounding, a ring's section, a ball. */
export const radiusKind: SizeKind<Radius> = {
  schema,
  faces: (s) => s.of,
  read: (s, on) =>
    each(s.of, on, (f) => {
      const c = on(f)!;
      const value = roundingOf(c);
      return value === undefined ? undefined : [{ what: "radius", quantity: "length", value }];
    }),
  text: (s, [v], often, l) => times(often, `${s.ball ? "S" : ""}R${letteredLength(v!.value, l)}`),
  noun: "the radius",
};
