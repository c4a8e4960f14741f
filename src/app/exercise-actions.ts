"use server";

import { revalidatePath } from "next/cache";
import { redirect } from "next/navigation";
import { z } from "zod";
import { newExercise } from "@/core/check/exercise/exercise";
import { RubricSchema, type RubricLine } from "@/core/check/exercise/rubric";
import { createExercise, exercise, saveExercise } from "@/server/exercises/exercises";
import { keepRubric, tryRubric } from "@/server/exercises/rubrics";
import { exerciseFrom } from "./exercise-from-form";
import { allowed, sent } from "./visitor";
import { plainText } from "@/core/units/text";

export interface ExerciseFormState {
  readonly sentence?: string;
  readonly done?: string;
  /** The version that saving once more goes on from. */
  readonly version?: number;
}

/** A new exercise is made when it is first saved. */
export async function createFromForm(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const course = String(form.get("course") ?? "");
  await allowed("course.teach", course);
  const next = await exerciseFrom(form, newExercise());
  if (!next.ok) return { sentence: next.refusal.sentence };
  redirect(`/exercises/${await createExercise(course, next.value)}`);
}

/** Saves the sheet of particulars; the reference part stays unless a part document is brought along. */
export async function updateExercise(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("id") ?? "");
  const { person } = await allowed("exercise.edit", id);
  const row = await exercise(id);
  const shown = row.prepared && "sizes" in row.prepared ? (row.prepared.sizes ?? []) : [];
  const next = await exerciseFrom(form, row.document, shown);
  if (!next.ok) return { sentence: next.refusal.sentence };
  const based = z.coerce.number().int().safeParse(form.get("version"));
  const version = based.success ? await saveExercise(id, next.value, based.data, person.id) : undefined;
  if (version !== undefined) return { done: "Saved. The reference is being measured.", version };
  return {
    sentence:
      "This exercise was changed meanwhile, in the Bench or in another window. Press Save again to put your " +
      "entries over it; a reference built in the Bench stays.",
    version: (await exercise(id)).version,
  };
}

/** What the exercise asks for becomes what its reference part says: material and unit. */
export async function takeFromReference(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("id") ?? "");
  const { person } = await allowed("exercise.edit", id);
  const { document, version } = await exercise(id);
  const { material, units } = document.reference;
  const saved = await saveExercise(id, { ...document, material, units }, version, person.id);
  return saved === undefined
    ? { sentence: "This exercise was changed meanwhile. Try again." }
    : { done: "Taken over from the reference part.", version: saved };
}

/** Has the rubric tried on typical mistakes. */
export async function tryRubricOn(id: string): Promise<void> {
  await allowed("exercise.edit", id);
  await tryRubric(id);
  revalidatePath(`/exercises/${id}`);
}

/** Keeps a rubric for the course of an exercise. @returns what is to be said */
export async function keepRubricFor(id: string, name: string, rubric: readonly RubricLine[]): Promise<string> {
  await allowed("exercise.edit", id);
  const called = plainText().trim().min(1).max(60).safeParse(name),
    lines = RubricSchema.safeParse(rubric);
  if (!called.success || !lines.success) return "This rubric cannot be kept: give it a name of at most 60 letters.";
  const { course_id } = await exercise(id);
  const isKept = await keepRubric(course_id, called.data, lines.data);
  return isKept ? `Kept as “${called.data}”.` : "The course has 50 rubrics already.";
}
