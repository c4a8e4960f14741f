import { z } from "zod";
import { plainText } from "@/core/units/text";

/** A driving number of the reference that differs from student to student, and its values; mm or radians. */
export const VaryingSchema = z.strictObject({
  number: plainText().min(1).max(200),
  values: z.union([
    z
      .strictObject({ from: z.number(), to: z.number(), step: z.number().positive() })
      .refine((r) => r.to > r.from, "a range goes from less to more"),
    z.strictObject({ of: z.array(z.number()).min(2).max(60) }),
  ]),
});
export type Varying = z.infer<typeof VaryingSchema>;
