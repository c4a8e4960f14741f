"use server";

import { revalidatePath } from "next/cache";
import { redirect } from "next/navigation";
import { z } from "zod";
import { newExercise } from "@/core/check/exercise";
import { RubricSchema, type RubricLine } from "@/core/check/rubric";
import { ACCEPTED } from "@/core/check/part-file";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { createExercise, exercise, saveExercise } from "@/server/exercises";
import type { Shows } from "@/core/grade/shows";
import { AFTER_DUE } from "@/core/grade/late";
import { timeZoneOf } from "@/server/courses";
import { remarkAll } from "@/server/marking";
import { changeTerms, extend, handout, issueHandout, type Terms } from "@/server/handouts";
import { momentIn } from "@/server/moments";
import { keepRubric, tryRubric } from "@/server/rubrics";
import { checkAgain } from "@/server/submissions";
import { exerciseFrom } from "./exercise-from-form";
import { allowed } from "./visitor";

export interface ExerciseFormState {
  readonly sentence?: string;
  readonly done?: string;
  /** The version that saving once more goes on from. */
  readonly version?: number;
}

/** A new exercise is made when it is first saved. */
export async function createFromForm(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  const course = String(form.get("course") ?? "");
  await allowed("course.teach", course);
  const next = await exerciseFrom(form, newExercise());
  if (!next.ok) return { sentence: next.refusal.sentence };
  redirect(`/exercises/${await createExercise(course, next.value)}`);
}

/** Saves the sheet of particulars; the reference part stays unless a part document is brought along. */
export async function updateExercise(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const row = await exercise(id);
  const shown = row.prepared && "sizes" in row.prepared ? (row.prepared.sizes ?? []) : [];
  const next = await exerciseFrom(form, row.document, shown);
  if (!next.ok) return { sentence: next.refusal.sentence };
  const based = z.coerce.number().int().safeParse(form.get("version"));
  const version = based.success ? await saveExercise(id, next.value, based.data) : undefined;
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
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const { document, version } = await exercise(id);
  const { material, units } = document.reference;
  const saved = await saveExercise(id, { ...document, material, units }, version);
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
  const called = z.string().trim().min(1).max(60).safeParse(name),
    lines = RubricSchema.safeParse(rubric);
  if (!called.success || !lines.success) return "This rubric cannot be kept: give it a name of at most 60 letters.";
  const { course_id } = await exercise(id);
  const isKept = await keepRubric(course_id, called.data, lines.data);
  return isKept ? `Kept as “${called.data}”.` : "The course has 50 rubrics already.";
}

const Late = z.object({
  grace: z.coerce.number().int().min(0).max(10_080),
  after: z.enum(AFTER_DUE),
  "points-a-day": z.coerce.number().min(0).max(1000),
});

/** On what terms a form gives a handout; its times are those of the course. */
function termsFrom(form: FormData, zone: string): Outcome<Terms> {
  const dueAt = momentIn(zone, String(form.get("due") ?? ""));
  if (!dueAt) return refuse("no-due", "Give the date and time it is due.");
  if (dueAt.getTime() <= Date.now()) return refuse("past", "This moment is over. Give a time to come.");
  const late = Late.safeParse(Object.fromEntries(form));
  if (!late.success)
    return refuse("bad-terms", "Give the grace in whole minutes, a week at most, and points from 0 up.");
  const accepts = ACCEPTED.filter((a) => form.get(`accepts-${a}`) === "on");
  if (!accepts.length) return refuse("takes-nothing", "Say what the handout takes: tick at least one.");
  const marking = markingFrom(form);
  if (!marking.ok) return marking;
  const { grace, after, "points-a-day": points } = late.data;
  return done({
    dueAt,
    graceMinutes: grace,
    afterDue: after,
    pointsADay: after === "points" ? points : 0,
    mayDefine: form.get("define") === "on",
    accepts,
    ...marking.value,
  });
}

const Marked = z.object({
  attempts: z.union([z.literal(""), z.coerce.number().int().min(1).max(100)]).optional(),
  counts: z.enum(["last", "best"]).optional(),
  weight: z.coerce.number().min(0).max(1000).optional(),
  practice: z.enum(["none", "fails", "sentences", "all"]).optional(),
  "practice-most": z.union([z.literal(""), z.coerce.number().int().min(1).max(1000)]).optional(),
  "shows-when": z.enum(["checked", "returned"]).optional(),
});

/** How a form says a handout is marked, and what its students see. */
function markingFrom(form: FormData): Outcome<Omit<Terms, "dueAt">> {
  const r = Marked.safeParse(Object.fromEntries(form));
  if (!r.success)
    return refuse("bad-terms", "Give tries and checks as whole numbers from 1 up, and the weight from 0 up.");
  const { attempts, counts = "last", weight = 1, practice = "none", "shows-when": when } = r.data;
  // a form without these fields gives a handout as it comes
  if (!when) return done({});
  const most = r.data["practice-most"];
  const sees = (name: string) => form.get(`shows-${name}`) === "on";
  const shows: Shows = {
    when,
    points: sees("points"),
    verdicts: sees("verdicts"),
    sentences: sees("sentences"),
    numbers: sees("numbers"),
    places: sees("places"),
    targets: sees("targets"),
  };
  return done({
    attemptsMost: attempts || undefined,
    counts,
    weight,
    holdBack: form.get("hold-back") === "on",
    shows,
    ...(practice !== "none" && { practice: { shows: practice, ...(most && { most }) } }),
  });
}

/** Gives a student more time, or takes it back with an empty time. */
export async function giveTime(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  const id = String(form.get("handout") ?? ""),
    student = String(form.get("person") ?? "");
  await allowed("handout.teach", id);
  const typed = String(form.get("due") ?? "");
  const h = await handout(id);
  const dueAt = typed ? momentIn(h.time_zone, typed) : undefined;
  if (typed && !dueAt) return { sentence: "Give a date and time, or leave it empty to take the extension back." };
  if (!z.uuid().safeParse(student).success || !(await extend(id, student, dueAt)))
    return { sentence: "Choose a student of this course." };
  revalidatePath(`/handouts/${id}`);
  return { done: dueAt ? "More time is given." : "The extension is taken back." };
}

/** Changes how a handout is marked and what its students see. */
export async function changeMarking(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  const id = String(form.get("handout") ?? "");
  await allowed("handout.teach", id);
  const terms = markingFrom(form);
  if (!terms.ok) return { sentence: terms.refusal.sentence };
  await changeTerms(id, terms.value);
  await remarkAll(id);
  revalidatePath(`/handouts/${id}`);
  return { done: "Changed. What was returned stays as it was returned." };
}

/** Checks again what was handed in last; what was reported stays. */
export async function checkHandoutAgain(form: FormData): Promise<void> {
  const id = String(form.get("handout") ?? "");
  await allowed("handout.teach", id);
  await checkAgain({ handout: id, only: form.get("only") === "failed" ? "failed" : undefined });
  revalidatePath(`/handouts/${id}`);
}

export async function checkSubmissionAgain(form: FormData): Promise<void> {
  const id = String(form.get("submission") ?? "");
  await allowed("submission.mark", id);
  await checkAgain({ submission: id });
  revalidatePath(`/submissions/${id}`);
}

export async function issue(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const terms = termsFrom(form, await timeZoneOf(id));
  if (!terms.ok) return { sentence: terms.refusal.sentence };
  const seen = z.coerce.number().int().safeParse(form.get("version"));
  const made = await issueHandout(id, terms.value, seen.success ? seen.data : undefined);
  if (made) redirect(`/handouts/${made}`);
  const row = await exercise(id);
  if (seen.success && seen.data !== row.version)
    return {
      sentence: "This exercise was changed meanwhile. Look at it again before you issue it.",
      version: row.version,
    };
  if (row.prepared_version < row.version)
    return { sentence: "The reference is still being measured. Try again in a moment." };
  const trouble = row.prepared && "trouble" in row.prepared ? row.prepared.trouble : undefined;
  return { sentence: trouble ?? "There is no reference part yet." };
}
