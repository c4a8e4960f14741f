import { z } from "zod";
import { letteredAngle } from "../lettering";
import { each, sizeFields, times, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("cone"),
  of: z.array(plainText()).min(1).max(2000),
  /** Half angle: as drafts and turned tapers are given. */
  half: z.boolean().optional(),
});
type Cone = z.infer<typeof schema>;

/** The angle of a cone: full, or half of it. */
export const coneKind: SizeKind<Cone> = {
  schema,
  faces: (s) => s.of,
  read: (s, on) =>
    each(s.of, on, (f) => {
      const c = on(f)!;
      if (c.kind !== "cone") return undefined;
      return [{ what: "angle", quantity: "angle", value: s.half ? c.half : 2 * c.half }];
    }),
  text: (_, [v], often) => times(often, letteredAngle(v!.value)),
  noun: "the angle of the cone",
};
