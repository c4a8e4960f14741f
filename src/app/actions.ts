"use server";

import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { z } from "zod";
import { defaultRubric, readExercise, type Exercise } from "@/core/check/exercise";
import { emptyPart, readPart } from "@/core/part/document";
import { createExercise, exercise, saveExercise } from "@/server/exercises";
import { issueHandout } from "@/server/handouts";
import { closeSession, demoPerson, openSession, personByPassword } from "@/server/people";
import { allowed, COOKIE } from "./visitor";

export interface FormState {
  readonly sentence?: string;
  readonly done?: string;
}

async function enter(personId: string): Promise<never> {
  const { token, days } = await openSession(personId);
  (await cookies()).set(COOKIE, token, {
    httpOnly: true,
    sameSite: "lax",
    path: "/",
    maxAge: days * 86400,
    secure: process.env["CALIPER_SECURE_COOKIE"] === "1",
  });
  redirect("/courses");
}

export async function signIn(_: FormState, form: FormData): Promise<FormState> {
  const r = z
    .object({ email: z.email().max(200), password: z.string().min(1).max(200) })
    .safeParse(Object.fromEntries(form));
  if (!r.success) return { sentence: "Type your email address and your password." };
  const person = await personByPassword(r.data.email, r.data.password);
  if (!person) return { sentence: "This email address and password do not go together." };
  return enter(person.id);
}

export async function signInDemo(form: FormData): Promise<void> {
  const id = z.uuid().safeParse(form.get("person"));
  const person = id.success ? await demoPerson(id.data) : undefined;
  if (!person) redirect("/");
  await enter(person.id);
}

export async function signOut(): Promise<void> {
  const jar = await cookies();
  const token = jar.get(COOKIE)?.value;
  if (token) await closeSession(token);
  jar.delete(COOKIE);
  redirect("/");
}

export async function newExercise(form: FormData): Promise<void> {
  const course = String(form.get("course") ?? "");
  await allowed("course.teach", course);
  const material = { name: "Steel S235", density: 7.85 };
  const document: Exercise = {
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
  redirect(`/exercises/${await createExercise(course, document)}`);
}

const percent = (form: FormData, name: string) => Number(String(form.get(name)).replace(",", ".")) / 100;

/** Saves the sheet of particulars; the reference part stays unless a part document is brought along. */
export async function updateExercise(_: FormState, form: FormData): Promise<FormState> {
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const old = (await exercise(id)).document;
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const units = text("units") === "in" ? "in" : "mm";
  const material = { name: text("material"), density: Number(text("density").replace(",", ".")) };
  let reference = old.reference;
  const file = form.get("part");
  if (file instanceof File && file.size > 0) {
    const part = file.size > 2_000_000 ? undefined : readPart(await file.text());
    if (!part) return { sentence: "The part document is larger than 2 MB." };
    if (!part.ok) return { sentence: part.refusal.sentence };
    reference = part.value;
  } else if (reference.units !== units && !reference.steps.length) reference = { ...reference, units };
  else if (reference.units !== units)
    return { sentence: `The reference part is drawn in ${reference.units}; its units cannot be changed any more.` };
  const next = {
    ...old,
    number: text("number"),
    title: text("title"),
    brief: text("brief"),
    units,
    material,
    reference: { ...reference, name: text("title"), material },
    tolerances: {
      volume: percent(form, "tolerance-volume"),
      mass: percent(form, "tolerance-mass"),
      shape: percent(form, "tolerance-shape"),
    },
    rubric: old.rubric.map((l) => {
      const limit = percent(form, `limit-${l.id}`);
      const amount = Number(form.get(`limit-${l.id}`));
      return {
        ...l,
        title: text(`title-${l.id}`),
        points: Number(text(`points-${l.id}`)),
        scoring:
          text(`mode-${l.id}`) === "falling"
            ? { mode: "falling" as const, limit: l.check === "sketches" ? amount : limit }
            : { mode: "all" as const },
      };
    }),
    sheet: {
      ...old.sheet,
      projection: text("projection"),
      printMass: form.get("print-mass") === "on",
      printVolume: form.get("print-volume") === "on",
      notes: text("notes"),
    },
  };
  const r = readExercise(next);
  if (!r.ok) return { sentence: r.refusal.sentence };
  await saveExercise(id, r.value);
  return { done: "Saved. The reference is being measured." };
}

export async function issue(_: FormState, form: FormData): Promise<FormState> {
  const id = String(form.get("id") ?? "");
  await allowed("exercise.edit", id);
  const due = z.coerce.date().safeParse(form.get("due"));
  if (!due.success || Number.isNaN(due.data.getTime())) return { sentence: "Give the date and time it is due." };
  const row = await exercise(id);
  if (row.prepared_version < row.version)
    return { sentence: "The reference is still being measured. Try again in a moment." };
  if (!row.prepared || "trouble" in row.prepared)
    return { sentence: row.prepared ? row.prepared.trouble : "There is no reference part yet." };
  redirect(`/handouts/${await issueHandout(id, due.data, form.get("define") === "on")}`);
}
