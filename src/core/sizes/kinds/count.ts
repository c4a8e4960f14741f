import { z } from "zod";
import { sizeFields, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("count"),
  /** One face of each of the like features. */
  of: z.array(plainText()).min(2).max(2000),
});
type Count = z.infer<typeof schema>;

/** How many like features there are. */
export const countKind: SizeKind<Count> = {
  schema,
  faces: (s) => s.of,
  read: (s, on) => [[{ what: "count", quantity: "count", value: s.of.filter((f) => on(f)).length }]],
  text: (_, [v]) => `${v!.value}×`,
  noun: "the number",
};
