import { z } from "zod";
import { LayoutSchema } from "./layout/layout";
import { PAPER_NAMES } from "./layout/paper";
import { AS_PRINTED, classNamed, type GeneralTolerance } from "@/core/sizes/general";
import type { FreeSchema } from "@/core/sizes/free";
import { letteredAngle, letteredLength, type Lettering } from "@/core/sizes/lettering";
import type { MassUnit } from "@/core/units/amounts";
import type { Size } from "@/core/sizes/size";
import type { Material, PartDocument } from "@/core/part/document";
import { plainText } from "@/core/units/text";

export const SheetSettingsSchema = z.strictObject({
  projection: z.enum(["first-angle", "third-angle"]),
  printMass: z.boolean(),
  /** The mass with what the exercise allows it to be off. */
  massTolerance: z.boolean().optional(),
  printVolume: z.boolean(),
  notes: plainText().max(1000),
  /** For the title block. */
  drawnBy: plainText().max(60).optional(),
  revision: plainText().max(20).optional(),
  /** The general tolerance as it is lettered; left out: as what sizes are judged by. */
  general: plainText().max(60).optional(),
  /** The paper; left out: the program chooses. */
  paper: z.strictObject({ name: z.enum(PAPER_NAMES), isLying: z.boolean() }).optional(),
  /** Inches as halves down to sixty-fourths where they are. */
  fractions: z.boolean().optional(),
  /** As somebody has arranged it; left out: the program lays it out. */
  layout: LayoutSchema.optional(),
  /** Steps that are not hatched where they are cut lengthwise: ribs, shafts, pins. */
  unhatched: z.array(plainText().max(40)).max(40).optional(),
  /** For the title block. */
  date: plainText().max(20).optional(),
  count: plainText().max(20).optional(),
  owner: plainText().max(60).optional(),
  /** The exact values behind rounded numbers, as a table. */
  exact: z.boolean().optional(),
  /** Signs for counterbore, countersink and depth in place of words. */
  signs: z.boolean().optional(),
});

/** How numbers stand on a Sheet. */
export const letteringOf = ({ units, sheet }: Pick<SheetSubject, "units" | "sheet">): Lettering => ({
  unit: units,
  fractions: sheet.fractions,
  signs: sheet.signs,
});

/**
 * How far sizes may be off that have no tolerance of their own: as the exercise has it, else as the Sheet's own words
 * say, else as printed. What the Sheet says and what is judged come from here.
 */
export const generalOf = ({ tolerances, sheet }: Pick<SheetSubject, "tolerances" | "sheet">): GeneralTolerance =>
  tolerances.sizes ?? classNamed(sheet.general ?? "") ?? classNamed(sheet.notes) ?? AS_PRINTED;

/** A general tolerance as it is lettered; where sizes are taken as printed the Sheet promises no more. */
export function generalText(
  general: GeneralTolerance,
  { units, sheet }: Pick<SheetSubject, "units" | "sheet">,
): string {
  if (general === AS_PRINTED) return "sizes as printed";
  if (general.by === "iso") return `ISO 2768-${general.class}`;
  const length = letteredLength(general.length, letteringOf({ units, sheet: { ...sheet, fractions: false } }));
  return `±${length}, angles ±${letteredAngle(general.angle)}`;
}

/** What a Sheet is drawn from; an exercise is one. */
export interface SheetSubject {
  readonly number: string;
  readonly title: string;
  readonly units: "mm" | "in";
  readonly massUnit?: MassUnit | undefined;
  readonly material: Material;
  readonly reference: PartDocument;
  /** The sizes it prints; left out: those proposed for the reference. */
  readonly sizes?: readonly Size[] | undefined;
  /** Steps and faces that are left to the student: their sizes are lettered so. */
  readonly free?: z.infer<typeof FreeSchema> | undefined;
  readonly tolerances: { readonly mass: number; readonly sizes?: GeneralTolerance | undefined };
  readonly sheet: z.infer<typeof SheetSettingsSchema>;
}

/** What a Sheet of a reference that lies on the drawing board is made of. */
export type LaidSubject = Omit<SheetSubject, "reference" | "sizes"> & { readonly sizes: readonly Size[] };
