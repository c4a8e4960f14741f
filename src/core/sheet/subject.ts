import { z } from "zod";
import type { MassUnit } from "@/core/units/amounts";
import type { Material, PartDocument } from "@/core/part/document";

export const AnchoredDimensionSchema = z.strictObject({
  id: z.string(),
  kind: z.enum(["linear", "diameter", "radius"]),
  view: z.enum(["front", "top", "side"]),
  /** Names of the reference's faces it is anchored to; one for a size of a round face, two for a distance. */
  faces: z.array(z.string()).min(1).max(2),
  /** For a slanting face: measure to its nearer or farther end from the first face. */
  reach: z.enum(["near", "far"]).optional(),
  count: z.number().int().positive().optional(),
});
export type AnchoredDimension = z.infer<typeof AnchoredDimensionSchema>;

export const SheetSettingsSchema = z.strictObject({
  projection: z.enum(["first-angle", "third-angle"]),
  printMass: z.boolean(),
  printVolume: z.boolean(),
  notes: z.string().max(1000),
  /** Left out: the dimensions are proposed from the reference. */
  dimensions: z.array(AnchoredDimensionSchema).max(200).optional(),
});

/** What a Sheet is drawn from; an exercise is one. */
export interface SheetSubject {
  readonly number: string;
  readonly title: string;
  readonly units: "mm" | "in";
  readonly massUnit?: MassUnit | undefined;
  readonly material: Material;
  readonly reference: PartDocument;
  readonly tolerances: { readonly mass: number };
  readonly sheet: z.infer<typeof SheetSettingsSchema>;
}
