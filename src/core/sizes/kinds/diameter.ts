import { z } from "zod";
import { AnchorSchema, supportAt } from "../anchor";
import { letteredLength } from "../lettering";
import { sizeFields, times, type SizeKind } from "./kind";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("diameter"),
  /** Round faces, or round edges as the faces that meet there; all of one size. */
  of: z.array(AnchorSchema).min(1).max(2000),
  /** Of a ball. */
  ball: z.boolean().optional(),
});
type Diameter = z.infer<typeof schema>;

/** Across a cylinder, a ball, the middle of a ring, or a round edge. */
export const diameterKind: SizeKind<Diameter> = {
  schema,
  faces: (s) => s.of.flat(),
  read: (s, on) =>
    s.of.map((anchor) => {
      const face = anchor.length === 1 ? on(anchor[0]!) : undefined;
      const support = supportAt(anchor, on);
      const radius = face?.kind === "torus" ? face.major : support && "radius" in support ? support.radius : undefined;
      return radius === undefined ? undefined : [{ what: "diameter", quantity: "length", value: 2 * radius }];
    }),
  text: (s, [v], often, l) => times(often, `${s.ball ? "S" : ""}⌀${letteredLength(v!.value, l)}`),
  noun: "the diameter",
};
