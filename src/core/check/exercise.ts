import { z } from "zod";
import { MaterialSchema, PartSchema, readDocument, readPart } from "@/core/part/document";
import { SheetSettingsSchema } from "@/core/sheet/subject";
import type { Outcome } from "@/core/units/refusal";

const Share = z.number().min(0).max(1);

export const RubricLineSchema = z.strictObject({
  id: z.string().min(1).max(40),
  check: z.enum(["sketches", "solid", "volume", "mass", "shape"]),
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

/** A rubric to start from: 20 points. */
export const defaultRubric = (): RubricLine[] => [
  {
    id: "sketches",
    check: "sketches",
    title: "Sketches fully defined",
    points: 5,
    scoring: { mode: "falling", limit: 6 },
  },
  { id: "solid", check: "solid", title: "One closed solid", points: 2, scoring: { mode: "all" } },
  { id: "volume", check: "volume", title: "Volume", points: 3, scoring: { mode: "falling", limit: 0.05 } },
  { id: "mass", check: "mass", title: "Mass", points: 4, scoring: { mode: "falling", limit: 0.05 } },
  { id: "shape", check: "shape", title: "Shape", points: 6, scoring: { mode: "falling", limit: 0.1 } },
];
