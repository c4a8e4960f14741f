"use server";

import { revalidatePath } from "next/cache";
import { redirect } from "next/navigation";
import { z } from "zod";
import { followOn } from "@/core/check/exercise/follow-on";
import { numbersThatMayVary } from "@/core/check/exercise/own-numbers";
import { readQuantity } from "@/core/units/quantity";
import { createExercise, exercise, newExerciseIn } from "@/server/exercises/exercises";
import { bringBack, duplicateInto } from "@/server/library/library";
import { handout } from "@/server/handouts/handouts";
import { submission } from "@/server/tries/submissions";
import type { ExerciseFormState } from "./exercise-actions";
import { allowed, sent } from "./visitor";
import { plainText } from "@/core/units/text";
import { cut } from "@/core/units/text";

/** The same exercise once more, in a course that one teaches. */
export async function duplicateExercise(form: FormData): Promise<void> {
  form = sent(form);
  const id = String(form.get("id") ?? ""),
    course = String(form.get("course") ?? "");
  await allowed("exercise.edit", id);
  await allowed("course.teach", course);
  redirect(`/exercises/${await duplicateInto(id, course)}`);
}

const Follow = z.object({ number: plainText().min(1).max(200), to: plainText().min(1).max(60) });

/** The next exercise of a series: the same part with one number changed, begun from the student's own. */
export async function makeFollowOn(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const read = Follow.safeParse(Object.fromEntries(form));
  if (!read.success) return { sentence: "Choose a number, and say what it is next." };
  const { document, course_id } = await exercise(id);
  const known = numbersThatMayVary(document).find((n) => n.id === read.data.number);
  const to = readQuantity(read.data.to, known?.quantity ?? "length", document.units);
  if (!to.ok) return { sentence: to.refusal.sentence };
  const next = followOn(document, read.data.number, to.value);
  if (!next.ok) return { sentence: next.refusal.sentence };
  redirect(`/exercises/${await createExercise(course_id, next.value)}`);
}

/** A student's part becomes the reference of a new exercise. */
export async function exerciseFromSubmission(form: FormData): Promise<void> {
  form = sent(form);
  const id = String(form.get("submission") ?? "");
  await allowed("submission.mark", id);
  const s = await submission(id);
  const h = await handout(s.handout_id);
  await allowed("course.teach", h.course_id);
  if (s.document.format !== "caliper-part") redirect(`/submissions/${id}`);
  const { title, units, material } = h.exercise;
  const plain = await newExerciseIn(h.course_id);
  const called = cut(`${title} (from a submission)`, 120);
  const reference = { ...s.document, name: called };
  redirect(`/exercises/${await createExercise(h.course_id, { ...plain, title: called, units, material, reference })}`);
}

/** Brings a revision of an exercise back as the newest. */
export async function bringRevisionBack(form: FormData): Promise<void> {
  form = sent(form);
  const id = String(form.get("id") ?? "");
  const { person } = await allowed("exercise.edit", id);
  const version = z.coerce.number().int().safeParse(form.get("version"));
  if (version.success) await bringBack(id, version.data, person.id);
  revalidatePath(`/exercises/${id}/revisions`);
}
