"use server";

import { revalidatePath } from "next/cache";
import { redirect } from "next/navigation";
import { z } from "zod";
import { TermsSchema, USUAL_TERMS, type GivenTerms } from "@/core/check/exercise/terms";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { timeZoneOf } from "@/server/courses/courses";
import { exercise } from "@/server/exercises/exercises";
import {
  changeTerms,
  changeTimes,
  extend,
  issueHandout,
  studentsOf,
  withdraw,
  type Times,
} from "@/server/handouts/handout-terms";
import { handout } from "@/server/handouts/handouts";
import { remarkAll } from "@/server/marking/marking";
import { momentIn } from "@/server/courses/moments";
import { enoughParts } from "@/server/handouts/own-parts";
import { checkAgain } from "@/server/tries/checks";
import type { ExerciseFormState } from "./exercise-actions";
import { allowed, sent } from "./visitor";

/** The terms that a form says, of those that it may say. */
function termsFrom<K extends keyof GivenTerms>(form: FormData, keys: readonly K[]): Outcome<Pick<GivenTerms, K>> {
  const refusal = refuse("bad-terms", "These terms cannot be read. Load the page again.");
  try {
    const read = TermsSchema.safeParse(JSON.parse(String(form.get("terms") ?? "{}")));
    if (!read.success) return refusal;
    return done(Object.fromEntries(keys.map((k) => [k, read.data[k]])) as Pick<GivenTerms, K>);
  } catch {
    return refusal;
  }
}
const LATE = ["graceMinutes", "afterDue", "pointsADay"] as const;
const MARKING = ["attemptsMost", "counts", "weight", "holdBack", "shows", "practice"] as const;

/** When a form gives a handout, and to whom; its times are those of the course. */
function timesFrom(form: FormData, zone: string): Outcome<Omit<Times, (typeof LATE)[number]>> {
  const typed = (name: string) => String(form.get(name) ?? "");
  if (!typed("due")) return refuse("no-due", "Give the date and time it is due.");
  const given = ["opens", "due", "closes"].filter(typed).map((name) => [name, momentIn(zone, typed(name))] as const);
  for (const [, moment] of given) if (!moment.ok) return moment;
  const of = (name: string) => {
    const [, moment] = given.find(([n]) => n === name) ?? [];
    return moment?.ok ? moment.value : undefined;
  };
  const [dueAt, opensAt, closesAt] = [of("due")!, of("opens"), of("closes")];
  if (opensAt && opensAt >= dueAt) return refuse("opens-late", "It must open before it is due.");
  if (closesAt && closesAt < dueAt) return refuse("closes-early", "It cannot close before it is due.");
  const ids = (name: string) => z.array(z.uuid()).max(2000).safeParse(form.getAll(name)).data ?? [];
  const audience = form.get("for") === "some" ? { groups: ids("group"), people: ids("student") } : undefined;
  if (audience && !audience.groups.length && !audience.people.length)
    return refuse("for-nobody", "Tick at least one group or student it is for.");
  return done({ dueAt, opensAt, closesAt, audience });
}

/** Gives a student more time, or takes it back with an empty time. */
export async function giveTime(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("handout") ?? ""),
    student = String(form.get("person") ?? "");
  await allowed("handout.teach", id);
  const typed = String(form.get("due") ?? "");
  const h = await handout(id);
  const moment = typed ? momentIn(h.time_zone, typed) : undefined;
  if (moment && !moment.ok)
    return { sentence: `${moment.refusal.sentence} Leave it empty to take the extension back.` };
  if (!z.uuid().safeParse(student).success || !(await extend(id, student, moment?.value)))
    return { sentence: "Choose a student of this course." };
  revalidatePath(`/handouts/${id}`);
  return { done: moment ? `More time is given. ${moment.notice ?? ""}`.trim() : "The extension is taken back." };
}

/** Changes when a handout opens, is due and closes, and whom it is for. */
export async function changeWhen(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("handout") ?? "");
  await allowed("handout.teach", id);
  const h = await handout(id);
  const times = timesFrom(form, h.time_zone),
    late = termsFrom(form, LATE);
  if (!times.ok) return { sentence: times.refusal.sentence };
  if (!late.ok) return { sentence: late.refusal.sentence };
  await changeTimes(id, { ...times.value, ...late.value });
  revalidatePath(`/handouts/${id}`);
  return { done: "Changed. What was handed in before keeps its time." };
}

/** Takes a handout back from its students, or gives it out again. */
export async function withdrawHandout(form: FormData): Promise<void> {
  form = sent(form);
  const id = String(form.get("handout") ?? "");
  await allowed("handout.teach", id);
  await withdraw(id, form.get("back") === "on");
  revalidatePath(`/handouts/${id}`);
}

/** Changes how a handout is marked and what its students see. */
export async function changeMarking(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("handout") ?? "");
  await allowed("handout.teach", id);
  const terms = termsFrom(form, MARKING);
  if (!terms.ok) return { sentence: terms.refusal.sentence };
  await changeTerms(id, terms.value);
  await remarkAll(id);
  revalidatePath(`/handouts/${id}`);
  return { done: "Changed. What was returned stays as it was returned." };
}

/** Checks again what was handed in last; what was reported stays. */
export async function checkHandoutAgain(form: FormData): Promise<void> {
  form = sent(form);
  const id = String(form.get("handout") ?? "");
  await allowed("handout.teach", id);
  await checkAgain({ handout: id, ...(form.get("only") === "failed" && { only: "failed" as const }) });
  revalidatePath(`/handouts/${id}`);
}

export async function checkSubmissionAgain(form: FormData): Promise<void> {
  form = sent(form);
  const id = String(form.get("submission") ?? "");
  await allowed("submission.mark", id);
  await checkAgain({ submission: id });
  revalidatePath(`/submissions/${id}`);
}

export async function issue(_: ExerciseFormState, form: FormData): Promise<ExerciseFormState> {
  form = sent(form);
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const times = timesFrom(form, await timeZoneOf(id));
  if (!times.ok) return { sentence: times.refusal.sentence };
  if (times.value.dueAt.getTime() <= Date.now()) return { sentence: "This moment is over. Give a time to come." };
  const seen = z.coerce.number().int().safeParse(form.get("version"));
  const { document } = await exercise(id);
  const enough = await enoughParts(document, await studentsOf(id, times.value.audience));
  if (!enough.ok) return { sentence: enough.refusal.sentence };
  const issue = z.uuid().safeParse(form.get("issue"));
  const terms = { ...USUAL_TERMS, ...document.terms, ...times.value };
  const made = await issueHandout(id, terms, seen.success ? seen.data : undefined, issue.data);
  if (made) redirect(`/handouts/${made}`);
  const row = await exercise(id);
  if (seen.success && seen.data !== row.version)
    return { sentence: "This exercise was changed meanwhile. Look at it again before you issue it." };
  if (row.prepared_version < row.version)
    return { sentence: "The reference is still being measured. Try again in a moment." };
  const trouble = row.prepared && "trouble" in row.prepared ? row.prepared.trouble : undefined;
  return { sentence: trouble ?? "There is no reference part yet." };
}
