import { z } from "zod";
import { MAX_DOCUMENT } from "@/core/part/document";

/** A part that came as a file in place of a document. */
export const PartFileSchema = z.strictObject({
  format: z.literal("caliper-file"),
  version: z.literal(1),
  kind: z.literal("step"),
  /** As it was called where it came from. */
  name: z.string().min(1).max(200),
  text: z.string().min(1).max(MAX_DOCUMENT),
});
export type PartFile = z.infer<typeof PartFileSchema>;
