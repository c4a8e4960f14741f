import { z } from "zod";
import { emptyPart, MaterialSchema, PartSchema, readDocument, readPart } from "@/core/part/document";
import { MASS_UNITS } from "@/core/units/amounts";
import { FreeSchema } from "@/core/sizes/free";
import { GeneralToleranceSchema } from "@/core/sizes/general";
import { SizeSchema } from "@/core/sizes/size";
import { defaultRubric, RubricSchema } from "./rubric";
import { QuestionSchema, WantedSchema } from "./question";
import { TermsSchema } from "./terms";
import { VaryingSchema } from "./varying";
import { SheetSettingsSchema } from "@/core/sheet/subject";
import type { Outcome } from "@/core/units/refusal";
import { plainText } from "@/core/units/text";

const Share = z.number().min(0).max(1);

/** An exercise: what is asked, what the answer is, and how it is marked. */
const ExerciseSchema = z.strictObject({
  format: z.literal("caliper-exercise"),
  version: z.literal(1),
  number: plainText().max(20),
  title: plainText().min(1).max(120),
  brief: plainText().max(4000),
  units: z.enum(["mm", "in"]),
  /** What masses are lettered in; left out: g, from ten kilograms on kg. */
  massUnit: z.enum(MASS_UNITS).optional(),
  material: MaterialSchema,
  /** The part must call its material as the exercise does; else the same density is enough. */
  materialByName: z.boolean().optional(),
  reference: PartSchema,
  /** Shares of the target: 0.005 is half a percent. */
  tolerances: z.strictObject({
    volume: Share,
    mass: Share,
    shape: Share,
    /** Of printed sizes that have none of their own, and of faces that moved; left out: as printed. */
    sizes: GeneralToleranceSchema.optional(),
  }),
  /** The sizes its drawing prints; left out: those proposed for its reference. */
  sizes: z.array(SizeSchema).max(400).optional(),
  /** The shape line: every face must be there, or only the volumes count. */
  shapeBy: z.enum(["faces", "volume"]).optional(),
  /** Steps and faces of the reference that are left to the student's judgement. */
  free: FreeSchema.optional(),
  /** For whoever is stuck, opened one by one. */
  hints: z.array(plainText().min(1).max(400)).max(10).optional(),
  /** Just the figure: what the student types beside the part, or in its place. */
  questions: z.array(QuestionSchema).max(40).optional(),
  /** The right answers, as a handout froze them; left out: worked out on the reference. */
  wanted: WantedSchema.optional(),
  /** What a library finds it by: tags, how hard it is (1 to 3), minutes needed. */
  about: z
    .strictObject({
      tags: z.array(plainText().trim().min(1).max(30)).max(12),
      level: z.number().int().min(1).max(3).optional(),
      minutes: z.number().int().min(1).max(10_000).optional(),
    })
    .optional(),
  /** Exercises that build on each other, in the order of their places. */
  series: z
    .strictObject({ name: plainText().trim().min(1).max(60), place: z.number().int().min(1).max(99) })
    .optional(),
  /** What students start from, where it is not nothing: a part for all, or their own of an earlier exercise. */
  start: z
    .discriminatedUnion("from", [
      z.strictObject({ from: z.literal("starter"), part: PartSchema }),
      z.strictObject({ from: z.literal("own"), number: plainText().min(1).max(20) }),
    ])
    .optional(),
  /** Own numbers: what differs from student to student. */
  varies: z.array(VaryingSchema).max(8).optional(),
  rubric: RubricSchema,
  /** On what terms it is given out; left out: as usual. */
  terms: TermsSchema.optional(),
  sheet: SheetSettingsSchema,
});

export type Exercise = z.infer<typeof ExerciseSchema>;

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
