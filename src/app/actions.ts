"use server";

import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { z } from "zod";
import { spanText } from "@/core/grade/late";
import { Crowded, doorShutFor, rightTry, wrongTry } from "@/server/people/doors";
import { closeSession, demoPerson, personByPassword, type Person } from "@/server/people/people";
import { COOKIE } from "./cookie";
import { addressOf, enter } from "./enter";
import { plainText } from "@/core/units/text";
import { sent } from "./visitor";

export interface FormState {
  readonly sentence?: string;
  readonly done?: string;
}

export async function signIn(_: FormState, form: FormData): Promise<FormState> {
  form = sent(form);
  const r = z
    .object({ email: z.email().max(200), password: plainText().min(1).max(200) })
    .safeParse(Object.fromEntries(form));
  if (!r.success) return { sentence: "Type your email address and your password." };
  const { email, password } = r.data;
  const address = await addressOf();
  const wait = await doorShutFor(email, address);
  if (wait) return { sentence: `Too many wrong tries. Try again in ${wait < 90 ? `${wait} s` : spanText(wait)}.` };
  let person: Person | undefined;
  try {
    person = await personByPassword(email, password);
  } catch (e) {
    if (e instanceof Crowded) return { sentence: e.message };
    throw e;
  }
  if (!person) {
    await wrongTry(email, address);
    return { sentence: "This email address and password do not go together." };
  }
  await rightTry(email);
  return enter(person.id);
}

export async function signInDemo(form: FormData): Promise<void> {
  form = sent(form);
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
