"use server";

import { redirect } from "next/navigation";
import { z } from "zod";
import type { Exercise } from "@/core/check/exercise/exercise";
import { RubricSchema, type RubricLine } from "@/core/check/exercise/rubric";
import { changeExercise, partOfFile } from "@/core/exercise/change";
import { MAX_DOCUMENT } from "@/core/part/document";
import { createExercise, exercise, newExerciseIn } from "@/server/exercises/exercises";
import { keepRubric } from "@/server/exercises/rubrics";
import { allowed, sent } from "./visitor";
import { refuse, type Outcome } from "@/core/units/refusal";
import { plainText } from "@/core/units/text";

export interface ExerciseFormState {
  readonly sentence?: string;
  readonly done?: string;
}

const New = z.object({ number: plainText().max(20), title: plainText().trim().max(120), way: plainText().max(10) });

/** Makes an exercise in one of three ways: to be built in the Bench, of a file, or to be gone on with. */
export async function createFromForm(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const course = String(form.get("course") ?? "");
  await allowed("course.teach", course);
  const read = New.safeParse(Object.fromEntries([...form].filter(([, v]) => typeof v === "string")));
  if (!read.success) return { sentence: "Give a number of at most 20 letters, and a title of at most 120." };
  const { number, title, way } = read.data;
  const plain = await newExerciseIn(course);
  const named = { ...plain, number: number || plain.number, title: title || plain.title };
  const next = await withFile(named, form.get("part"));
  if (!next.ok) return { sentence: next.refusal.sentence };
  const id = await createExercise(course, next.value);
  redirect(way === "build" ? `/exercises/${id}/bench` : `/exercises/${id}?at=part`);
}

/** An exercise with the part that was brought along, where one was. */
async function withFile(exercise: Exercise, file: FormDataEntryValue | null): Promise<Outcome<Exercise>> {
  if (!(file instanceof File) || !file.size) return changeExercise(exercise, { do: "say", to: {} });
  if (file.size > MAX_DOCUMENT) return refuse("too-large", "The file is larger than 2 MB.");
  const part = partOfFile(file.name, await file.text());
  return part.ok ? changeExercise(exercise, { do: "reference", part: part.value }) : part;
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
