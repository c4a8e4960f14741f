"use server";

import { revalidatePath } from "next/cache";
import { redirect } from "next/navigation";
import { z } from "zod";
import { STEP_KIND_NAMES } from "@/core/check/kinds/ways/rule";
import { ACCEPTED } from "@/core/check/given/part-file";
import { AFTER_DUE } from "@/core/grade/late";
import type { Shows } from "@/core/grade/shows";
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
  type Terms,
  type Times,
} from "@/server/handouts/handout-terms";
import { handout } from "@/server/handouts/handouts";
import { remarkAll } from "@/server/marking/marking";
import { momentIn } from "@/server/courses/moments";
import { enoughParts } from "@/server/handouts/own-parts";
import { checkAgain } from "@/server/tries/checks";
import type { ExerciseFormState } from "./exercise-actions";
import { allowed, sent } from "./visitor";

const Late = z.object({
  grace: z.coerce.number().int().min(0).max(10_080),
  after: z.enum(AFTER_DUE),
  "points-a-day": z.coerce.number().min(0).max(1000),
});

/** When a form gives a handout, and to whom; its times are those of the course. */
function timesFrom(form: FormData, zone: string): Outcome<Times> {
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
  const late = Late.safeParse(Object.fromEntries(form));
  if (!late.success)
    return refuse("bad-terms", "Give the grace in whole minutes, a week at most, and points from 0 up.");
  const ids = (name: string) => z.array(z.uuid()).max(2000).safeParse(form.getAll(name)).data ?? [];
  const audience = form.get("for") === "some" ? { groups: ids("group"), people: ids("student") } : undefined;
  if (audience && !audience.groups.length && !audience.people.length)
    return refuse("for-nobody", "Tick at least one group or student it is for.");
  const { grace, after, "points-a-day": points } = late.data;
  return done({
    dueAt,
    opensAt,
    closesAt,
    audience,
    graceMinutes: grace,
    afterDue: after,
    pointsADay: after === "points" ? points : 0,
  });
}

/** On what terms a form gives a handout. */
function termsFrom(form: FormData, zone: string): Outcome<Terms> {
  const times = timesFrom(form, zone);
  if (!times.ok) return times;
  if (times.value.dueAt.getTime() <= Date.now()) return refuse("past", "This moment is over. Give a time to come.");
  const steps = z.array(z.enum(STEP_KIND_NAMES)).safeParse(form.getAll("step")).data ?? [];
  const accepts = ACCEPTED.filter((a) => form.get(`accepts-${a}`) === "on");
  if (!accepts.length) return refuse("takes-nothing", "Say what the handout takes: tick at least one.");
  const marking = markingFrom(form);
  if (!marking.ok) return marking;
  return done({
    ...times.value,
    // all of them, or a form without the choice: nothing is held back
    ...(steps.length && steps.length < STEP_KIND_NAMES.length - 1 && { mayUse: steps }),
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
  const read = Marked.safeParse(Object.fromEntries(form));
  if (!read.success)
    return refuse("bad-terms", "Give tries and checks as whole numbers from 1 up, and the weight from 0 up.");
  const { attempts, counts = "last", weight = 1, practice = "none", "shows-when": when } = read.data;
  // a form without these fields gives a handout as it comes
  if (!when) return done({});
  const most = read.data["practice-most"];
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
  const times = timesFrom(form, h.time_zone);
  if (!times.ok) return { sentence: times.refusal.sentence };
  await changeTimes(id, times.value);
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
  const terms = markingFrom(form);
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
  const terms = termsFrom(form, await timeZoneOf(id));
  if (!terms.ok) return { sentence: terms.refusal.sentence };
  const seen = z.coerce.number().int().safeParse(form.get("version"));
  const enough = await enoughParts((await exercise(id)).document, await studentsOf(id, terms.value.audience));
  if (!enough.ok) return { sentence: enough.refusal.sentence };
  const issue = z.uuid().safeParse(form.get("issue"));
  const made = await issueHandout(id, terms.value, seen.success ? seen.data : undefined, issue.data);
  if (made) redirect(`/handouts/${made}`);
  const row = await exercise(id);
  if (seen.success && seen.data !== row.version)
    return { sentence: "This exercise was changed meanwhile. Look at it again before you issue it." };
  if (row.prepared_version < row.version)
    return { sentence: "The reference is still being measured. Try again in a moment." };
  const trouble = row.prepared && "trouble" in row.prepared ? row.prepared.trouble : undefined;
  return { sentence: trouble ?? "There is no reference part yet." };
}
