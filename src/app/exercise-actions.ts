"use server";

import { revalidatePath } from "next/cache";
import { redirect } from "next/navigation";
import { z } from "zod";
import { newExercise, newLine, readExercise, type Exercise } from "@/core/check/exercise";
import { CHECK_NAMES, checkKind } from "@/core/check/kinds/kinds";
import type { Size } from "@/core/sizes/size";
import { MAX_DOCUMENT, readPart, type PartDocument } from "@/core/part/document";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { createExercise, exercise, saveExercise } from "@/server/exercises";
import { AFTER_DUE } from "@/core/grade/late";
import { timeZoneOf } from "@/server/courses";
import { extend, handout, issueHandout, type Terms } from "@/server/handouts";
import { momentIn } from "@/server/moments";
import { checkAgain } from "@/server/submissions";
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

/** The sizes with those marked free that were marked; undefined where nothing is marked and nothing was. */
function freedIn(form: FormData, shown: readonly Size[]): Size[] | undefined {
  if (form.get("sizes-known") !== String(shown.length)) return undefined;
  const sizes = shown.map((s): Size => {
    const { free, ...rest } = s;
    if (form.get(`free-${s.id}`) === "on") return { ...rest, free: free ?? true } as Size;
    return (free === true ? rest : s) as Size;
  });
  return sizes.some((s) => s.free) || shown.some((s) => s.free) ? sizes : undefined;
}

const percent = (form: FormData, name: string) => Number(String(form.get(name)).replace(",", ".")) / 100;

/** @param shown the sizes its Sheet prints, as they stood beside the form */
async function exerciseFrom(form: FormData, old: Exercise, shown: readonly Size[] = []): Promise<Outcome<Exercise>> {
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const sizes = freedIn(form, shown);
  const brought = await partIn(form.get("part"));
  if (!brought.ok) return brought;
  const { massUnit: _, shapeBy: __, materialByName: ___, ...rest } = old;
  const rule = text("tolerance-sizes");
  const added = CHECK_NAMES.filter((c) => !old.rubric.some((l) => l.check === c) && Number(text(`points-${c}`)) > 0);
  const isFirst = brought.value !== undefined && !old.reference.steps.length;
  const asked = {
    units: text("units"),
    material: { name: text("material"), density: Number(text("density").replace(",", ".")) },
  };
  return readExercise({
    ...rest,
    number: text("number"),
    title: text("title"),
    brief: text("brief"),
    ...(text("mass-unit") && { massUnit: text("mass-unit") }),
    ...asked,
    // the first reference hands its material and unit on; later differences are shown and asked about
    ...(isFirst && { units: brought.value.units, material: brought.value.material }),
    reference: { ...(brought.value ?? referenceFor(old.reference, asked)), name: text("title") },
    tolerances: {
      volume: percent(form, "tolerance-volume"),
      mass: percent(form, "tolerance-mass"),
      shape: percent(form, "tolerance-shape"),
      ...(/^[fmcv]$/.test(rule) && { sizes: { by: "iso", class: rule } }),
    },
    ...(form.get("shape-by-faces") !== "on" && { shapeBy: "volume" }),
    ...(form.get("material-by-name") === "on" && { materialByName: true }),
    ...(sizes && { sizes }),
    rubric: [...old.rubric, ...added.map((c) => newLine(c))].map((l) => ({
      ...l,
      title: text(`title-${l.id}`),
      points: Number(text(`points-${l.id}`)),
      scoring: scoringFrom(form, l),
    })),
    sheet: {
      ...old.sheet,
      projection: text("projection"),
      printMass: form.get("print-mass") === "on",
      printVolume: form.get("print-volume") === "on",
      notes: text("notes"),
    },
  });
}

/** A reference nobody has begun yet is begun in the exercise's unit and material. */
const referenceFor = (reference: PartDocument, asked: object): object =>
  reference.steps.length ? reference : { ...reference, ...asked };

async function partIn(file: FormDataEntryValue | null): Promise<Outcome<PartDocument | undefined>> {
  if (!(file instanceof File) || !file.size) return done(undefined);
  if (file.size > MAX_DOCUMENT) return refuse("too-large", "The part document is larger than 2 MB.");
  return readPart(await file.text());
}

function scoringFrom(form: FormData, line: Exercise["rubric"][number]): object {
  if (form.get(`mode-${line.id}`) !== "falling") return { mode: "all" };
  const typed = Number(String(form.get(`limit-${line.id}`)).replace(",", "."));
  return { mode: "falling", limit: checkKind(line.check).limit?.isShare ? typed / 100 : typed };
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
  const { grace, after, "points-a-day": points } = late.data;
  return done({
    dueAt,
    graceMinutes: grace,
    afterDue: after,
    pointsADay: after === "points" ? points : 0,
    mayDefine: form.get("define") === "on",
    acceptsStep: form.get("accepts-step") === "on",
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
