import { z } from "zod";
import { means } from "@/core/naming/field";
import { stepFields, stepKind } from "../fields";
import { plainText } from "@/core/units/text";

/** A file as a step keeps it, in characters. */
export const MAX_IMPORTED = 1_500_000;

const ImportedStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("imported"),
  /** What the file was called. */
  file: means(plainText().max(120), "text"),
  /** The file itself: STEP (ISO 10303-21). */
  step: means(plainText().max(MAX_IMPORTED), "memory"),
});
export type ImportedStep = z.infer<typeof ImportedStepSchema>;

export const importedKind = stepKind({
  schema: ImportedStepSchema,
  read: (step) => ({ title: "Body from a file", detail: step.file || "STEP" }),
});
