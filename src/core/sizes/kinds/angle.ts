import { z } from "zod";
import { cross3, dot3, length3 } from "@/core/geometry/vector";
import { AnchorSchema, leaningOf, supportAt } from "../anchor";
import { letteredAngle } from "../lettering";
import { sizeFields, type SizeKind } from "./kind";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("angle"),
  from: AnchorSchema,
  to: AnchorSchema,
  /** The other of the two angles that lines make. */
  flip: z.boolean().optional(),
});
type Angle = z.infer<typeof schema>;

/** Between two flat faces (through the material), two axes, or a face and an axis; of an ellipse the longer axis. */
export const angleKind: SizeKind<Angle> = {
  schema,
  faces: (s) => [...s.from, ...s.to],
  read(s, on) {
    const support = supportAt(s.from, on),
      q = supportAt(s.to, on),
      a = leaningOf(support),
      b = leaningOf(q);
    if (!support || !q || !a || !b) return [undefined];
    const turned = Math.atan2(length3(cross3(a, b)), dot3(a, b));
    const planes = ("plane" in support ? 1 : 0) + ("plane" in q ? 1 : 0);
    // two planes: as the material sees them; lines have no sense, so the lesser angle
    const plain = planes === 2 ? Math.PI - turned : Math.min(turned, Math.PI - turned);
    const angle = planes === 1 ? Math.PI / 2 - plain : plain;
    return [[{ what: "angle", quantity: "angle", value: s.flip ? Math.PI - angle : angle }]];
  },
  text: (_, [v]) => letteredAngle(v!.value),
  noun: "the angle",
};
