"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { handout } from "@/server/handouts/handouts";
import { signOff, takeSignOffBack } from "@/server/marking/live";
import { applyRecheck, beginRecheck, dropRecheck } from "@/server/marking/rechecks";
import { allowed } from "./visitor";
import { plainText } from "@/core/units/text";

/** Begins a second check of a handout. @returns what is to be said */
export async function beginSecondCheck(id: string, why: string, givesSheet: boolean): Promise<string> {
  const { person } = await allowed("handout.teach", id);
  const reason = plainText().trim().min(1).max(300).safeParse(why);
  if (!reason.success) return "Say why, in a sentence or two.";
  const r = await beginRecheck(await handout(id), person, {
    why: reason.data,
    givesSheet: givesSheet === true,
  });
  revalidatePath(`/handouts/${id}/second-check`);
  return r.ok ? "" : r.refusal.sentence;
}

export async function applySecondCheck(id: string): Promise<string> {
  await allowed("handout.teach", id);
  const r = await applyRecheck(id);
  revalidatePath(`/handouts/${id}/second-check`);
  return r.ok
    ? `Applied to ${r.value}. What was returned before is returned anew when you return it.`
    : r.refusal.sentence;
}

export async function dropSecondCheck(id: string): Promise<string> {
  await allowed("handout.teach", id);
  await dropRecheck(id);
  revalidatePath(`/handouts/${id}/second-check`);
  return "Nothing has changed.";
}

/** A mark that somebody's part was looked at beside them, set or taken back. */
export async function signOffAtDesk(id: string, student: string, on: boolean): Promise<void> {
  const { person } = await allowed("handout.mark", id);
  if (!z.uuid().safeParse(student).success) return;
  await (on ? signOff(id, student, person.id) : takeSignOffBack(id, student));
  revalidatePath(`/handouts/${id}/live`);
}
