import { z } from "zod";
import { emptyPart, MaterialSchema, PartSchema, readDocument, readPart } from "@/core/part/document";
import { MASS_UNITS } from "@/core/units/amounts";
import { CHECK_NAMES, checkKind } from "./kinds/kinds";
import { SheetSettingsSchema } from "@/core/sheet/subject";
import type { Outcome } from "@/core/units/refusal";

const Share = z.number().min(0).max(1);

export const RubricLineSchema = z.strictObject({
  id: z.string().min(1).max(40),
  check: z.enum(CHECK_NAMES),
  title: z.string().min(1).max(80),
  points: z.number().min(0).max(1000),
  /** All or nothing, or falling linearly from the tolerance (all points) to the limit (none). */
  scoring: z.discriminatedUnion("mode", [
    z.strictObject({ mode: z.literal("all") }),
    z.strictObject({ mode: z.literal("falling"), limit: z.number().positive() }),
  ]),
});

/** An exercise: what is asked, what the answer is, and how it is marked. */
export const ExerciseSchema = z.strictObject({
  format: z.literal("caliper-exercise"),
  version: z.literal(1),
  number: z.string().max(20),
  title: z.string().min(1).max(120),
  brief: z.string().max(4000),
  units: z.enum(["mm", "in"]),
  /** What masses are lettered in; left out: g, from ten kilograms on kg. */
  massUnit: z.enum(MASS_UNITS).optional(),
  material: MaterialSchema,
  reference: PartSchema,
  /** Shares of the target: 0.005 is half a percent. */
  tolerances: z.strictObject({ volume: Share, mass: Share, shape: Share }),
  rubric: z.array(RubricLineSchema).max(40),
  sheet: SheetSettingsSchema,
});

export type Exercise = z.infer<typeof ExerciseSchema>;
export type RubricLine = z.infer<typeof RubricLineSchema>;

export function readExercise(source: unknown): Outcome<Exercise> {
  const r = readDocument(source, ExerciseSchema, "The exercise", "bad-exercise");
  if (!r.ok) return r;
  const reference = readPart(r.value.reference);
  return reference.ok ? r : reference;
}

/** An exercise to start from. */
export function newExercise(): Exercise {
  const material = { name: "Steel S235", density: 7.85 };
  return {
    format: "caliper-exercise",
    version: 1,
    number: "",
    title: "New exercise",
    brief: "",
    units: "mm",
    material,
    reference: emptyPart("New exercise", "mm", material),
    tolerances: { volume: 0.002, mass: 0.005, shape: 0.001 },
    rubric: defaultRubric(),
    sheet: { projection: "first-angle", printMass: true, printVolume: false, notes: "" },
  };
}

/** A rubric to start from: 20 points. */
export const defaultRubric = (): RubricLine[] =>
  CHECK_NAMES.map((check) => {
    const { title, points, limit } = checkKind(check).start;
    const scoring = limit === undefined ? { mode: "all" as const } : { mode: "falling" as const, limit };
    return { id: check, check, title, points, scoring };
  });
