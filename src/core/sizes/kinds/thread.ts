import { z } from "zod";
import { depthText } from "../lettering";
import { each, sizeFields, times, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("thread"),
  /** The bores that are cut. */
  of: z.array(plainText()).min(1).max(2000),
  /** As the standard writes it: M8. */
  name: plainText().min(1).max(40),
  /** How far it is cut, mm; left out: all the way. */
  depth: z.number().positive().optional(),
});
type Thread = z.infer<typeof schema>;

/** A thread note. The thread itself is not modelled: what is measured is the bore it is cut into. */
export const threadKind: SizeKind<Thread> = {
  schema,
  faces: (s) => s.of,
  read: (s, on) =>
    each(s.of, on, (f): SizeReading | undefined => {
      const c = on(f)!;
      return c.kind === "cylinder" ? [{ what: "core hole", quantity: "length", value: 2 * c.radius }] : undefined;
    }),
  text: (s, _, often, l) => times(often, `${s.name}${s.depth === undefined ? "" : depthText(s.depth, l)}`),
  noun: "the core hole",
};
