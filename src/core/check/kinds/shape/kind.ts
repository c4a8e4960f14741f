import { findingTexts, type FeatureFinding } from "../../findings/finding";
import { INCHES } from "../../tolerance";
import { begun } from "@/core/naming/words";
import { z } from "zod";
import type { Rigid } from "@/core/geometry/rigid";
import type { Vec3 } from "@/core/geometry/vector";
import { volumeText } from "@/core/units/amounts";
import { lengthText, plainNumber, type LengthUnit } from "@/core/units/quantity";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";
import { plainText } from "@/core/units/text";

/** One connected piece of missing or extra material; in the reference's coordinates, mm and mm³. */
export interface Lump {
  readonly volume: number;
  readonly centre: Vec3;
  readonly box: { readonly min: Vec3; readonly max: Vec3 };
}

export interface ShapeEvidence {
  readonly check: "shape";
  readonly verdict: Verdict;
  /**
   * same: every face coincides; differs; mirrored; scaled; unplaced: no motion brings anything together; absent: no
   * solid.
   */
  readonly finding: "same" | "differs" | "mirrored" | "scaled" | "unplaced" | "absent";
  /** Submission to reference. */
  readonly motion: Rigid;
  readonly facesMatched: number;
  readonly facesOfReference: number;
  /** Size of the submission over that of the reference; 1 unless scaled. */
  readonly scale: number;
  readonly missing: readonly Lump[];
  readonly extra: readonly Lump[];
  /** What is missing, changed or too much, as a person would call it; left out in reports of before. */
  readonly features?: readonly FeatureFinding[] | undefined;
  /** How far a face of the part lies from the one of the reference at most, mm; of those that have a partner. */
  readonly deviation?: number | undefined;
  /** Measured on the facets of a mesh: by distances, without amounts. */
  readonly mesh?: true | undefined;
  /** How far surfaces lie apart typically: root mean square over the area, mm. */
  readonly typical?: number | undefined;
  /** (missing + extra) / volume of the reference. */
  readonly off: number;
  readonly tolerance: number;
  readonly imbalance: number;
  /** Why the difference cannot be believed, when it cannot. */
  readonly doubt?: string | undefined;
}

const Place = z.tuple([z.number(), z.number(), z.number()]);
const LumpSchema = z.strictObject({
  volume: z.number(),
  centre: Place,
  box: z.strictObject({ min: Place, max: Place }),
});

export const shapeKind: CheckKind<ShapeEvidence> = {
  evidence: z.strictObject({
    check: z.literal("shape"),
    verdict: VerdictSchema,
    finding: z.enum(["same", "differs", "mirrored", "scaled", "unplaced", "absent"]),
    motion: z.strictObject({ rows: z.tuple([Place, Place, Place]), shift: Place }),
    facesMatched: z.number(),
    facesOfReference: z.number(),
    scale: z.number(),
    missing: z.array(LumpSchema),
    extra: z.array(LumpSchema),
    features: z
      .array(
        z.strictObject({
          name: plainText(),
          like: z.strictObject({ called: plainText(), of: z.number() }).optional(),
          state: z.enum(["missing", "changed", "extra"]),
          moved: z.strictObject({ by: z.number(), way: plainText() }).optional(),
          grown: z.number().optional(),
          off: z.number().optional(),
          at: Place,
        }),
      )
      .optional(),
    deviation: z.number().optional(),
    typical: z.number().optional(),
    mesh: z.literal(true).optional(),
    off: z.number(),
    tolerance: z.number(),
    imbalance: z.number(),
    doubt: plainText().optional(),
  }),
  toInstructor(e, { units }) {
    if (e.finding === "differs") {
      const things = thingsText(e, units);
      const amounts = e.doubt ? `By how much could not be told: ${e.doubt}` : `${differences(e, units)}.`;
      const typical = e.typical ? `, typical ${lengthText(e.typical, units)}` : "";
      const far = e.deviation ? ` Largest deviation ${lengthText(e.deviation, units)}${typical}.` : "";
      const known = e.mesh ? "" : `${amounts} `;
      return `${things && `${things} `}${known}${e.facesMatched} of ${e.facesOfReference} faces coincide.${far}`;
    }
    if (e.finding !== "mirrored" || e.mesh) return toStudent(e, units);
    const where = differences(e, units);
    return (
      "The part is the mirror image of the reference. Where it lies best: " +
      `${where[0]!.toLowerCase()}${where.slice(1)}.`
    );
  },
  toStudent: (e, { units }) => toStudent(e, units),
  earnsNothing: (e) => e.finding === "mirrored" || e.finding === "scaled",
  limit: { unit: "% of the volume missing or extra", isShare: true },
  start: { title: "Shape", points: 6, limit: 0.1 },
};

function toStudent(evidence: ShapeEvidence, unit: LengthUnit): string {
  switch (evidence.finding) {
    case "same":
      return `Every face is where the drawing puts it (${evidence.facesMatched} of ${evidence.facesOfReference}).`;
    case "differs":
      return differsText(evidence, unit);
    case "mirrored":
      return "The part is the mirror image of what the drawing shows.";
    case "scaled": {
      const { scale } = evidence;
      const times = `${plainNumber(Math.max(scale, 1 / scale), 4)} times too ${scale > 1 ? "large" : "small"}`;
      return `The part has the right form but is ${times}${inchesText(evidence.scale)}.`;
    }
    case "unplaced":
      return "Nothing of the part lies like what the drawing shows.";
    case "absent":
      return "There is no solid to compare.";
  }
}

/** Things named at most. */
const MANY = 5;

function thingsText({ features = [] }: ShapeEvidence, unit: LengthUnit): string {
  if (!features.length) return "";
  const all = findingTexts(features, { unit });
  const more = all.length > MANY ? `; and ${all.length - MANY} more` : "";
  return `${begun(all.slice(0, MANY).join("; "))}${more}.`;
}

function differsText(e: ShapeEvidence, unit: LengthUnit): string {
  if (e.verdict === "unknown") return "The shape could not be checked by the program; your instructor will look.";
  if (e.verdict === "met") return "The shape differs from the drawing by less than the tolerance.";
  if (e.features?.length) return thingsText(e, unit);
  if (!e.missing.length) return "The shape differs from the drawing: there is too much material.";
  const elsewhere = e.extra.length ? " and there is too much elsewhere" : "";
  return `The shape differs from the drawing: material is missing${elsewhere}.`;
}

const MM_PER_INCH = 25.4;
const inchesText = (scale: number) =>
  Math.abs(Math.max(scale, 1 / scale) / MM_PER_INCH - 1) < INCHES ? ": inches and millimetres were confused" : "";

function differences(evidence: ShapeEvidence, unit: LengthUnit): string {
  const tell = (word: string, list: readonly Lump[]) => {
    if (!list.length) return `nothing ${word}`;
    const total = list.reduce((s, l) => s + l.volume, 0);
    const at = evidence.features?.length
      ? ""
      : ` at (${list[0]!.centre.map((v) => lengthText(v, unit, false)).join(", ")}) ${unit}`;
    const places = list.length > 1 ? ` in ${list.length} places` : "";
    return `${word} ${volumeText(total, unit)}${places}${at}`;
  };
  const text = `${tell("missing", evidence.missing)}, ${tell("extra", evidence.extra)}`;
  return begun(text);
}
