import { z } from "zod";
import { plainText } from "@/core/units/text";
import { letteredLength } from "../lettering";
import { each, sizeFields, times, type SizeKind, type SizeValue } from "./kind";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("ellipse"),
  /** Faces that an ellipse sweeps. */
  of: z.array(plainText()).min(1).max(500),
  /** Only one of its axes; left out: both. */
  only: z.enum(["long", "short"]).optional(),
});
type Ellipse = z.infer<typeof schema>;

/** The axes of an ellipse, over all. */
export const ellipseKind: SizeKind<Ellipse> = {
  schema,
  faces: (s) => s.of,
  read: (s, on) =>
    each(s.of, on, (f) => {
      const c = on(f)!;
      if (c.kind !== "elliptic") return undefined;
      const axes = (["long", "short"] as const).map((which, i) => ({ which, value: 2 * c.halves[i]! }));
      return axes
        .filter(({ which }) => s.only === undefined || s.only === which)
        .map(({ which, value }): SizeValue => ({ what: `${which} axis`, quantity: "length", value }));
    }),
  text: (s, read, often, l) => {
    const numbers = read.map((v) => letteredLength(v.value, l)).join(" × ");
    return times(often, s.only ? `${s.only} axis ${numbers}` : `ellipse ${numbers}`);
  },
  noun: "the axes",
};
