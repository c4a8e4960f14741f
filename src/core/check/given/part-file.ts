import { z } from "zod";
import { MAX_DOCUMENT } from "@/core/part/document";
import { plainText } from "@/core/units/text";

/** Bytes of a mesh file at most: a hundred thousand facets. */
export const MAX_MESH = 6_000_000;

const base = {
  format: z.literal("caliper-file"),
  version: z.literal(1),
  /** As it was called where it came from. */
  name: plainText().min(1).max(200),
};
const Base64 = z.base64().max(Math.ceil(MAX_MESH / 3) * 4);

/** A part that came as a file in place of a document; mesh files as base64. */
export const PartFileSchema = z.discriminatedUnion("kind", [
  z.strictObject({ ...base, kind: z.literal("step"), text: plainText().min(1).max(MAX_DOCUMENT) }),
  /** `unit` is what its numbers are meant in: the format does not say. */
  z.strictObject({ ...base, kind: z.literal("stl"), unit: z.enum(["mm", "in"]), data: Base64 }),
  z.strictObject({ ...base, kind: z.literal("3mf"), data: Base64 }),
]);
export type PartFile = z.infer<typeof PartFileSchema>;

/** Figures are handed in alone, without a part. */
export interface FiguresOnly {
  readonly format: "caliper-figures";
  readonly version: 1;
}
export const FIGURES_ONLY: FiguresOnly = { format: "caliper-figures", version: 1 };

/** What a handout may take: a part built on the Bench, a STEP file, a mesh file, or typed figures alone. */
export const ACCEPTED = ["part", "step", "mesh", "figures"] as const;
export type Accepted = (typeof ACCEPTED)[number];

/** Under which word a handout takes a file. */
export const acceptedAs = (file: PartFile): Accepted => (file.kind === "step" ? "step" : "mesh");
