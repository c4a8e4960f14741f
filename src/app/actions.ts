"use server";

import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { z } from "zod";
import { closeSession, demoPerson, openSession, personByPassword } from "@/server/people";
import { COOKIE } from "./visitor";

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
