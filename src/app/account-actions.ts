"use server";

import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { z } from "zod";
import { ChangePassword, Code, FirstPerson, NewPassword, Reminder, Rename } from "@/core/roster/forms";
import { Crowded, doorShutFor, rightTry, wrongTry } from "@/server/people/doors";
import { accept, courseByCode, offerOf } from "@/server/people/invitations";
import {
  endSessions,
  hashPassword,
  makeFirst,
  makePerson,
  personByEmail,
  personByPassword,
  rename,
  setPassword,
  useKey as spendKey,
} from "@/server/people/people";
import { enrolByCode, remind } from "@/server/people/roster";
import type { Answer } from "@/ui/parts/zod-form";
import { COOKIE } from "./cookie";
import { addressOf, enter } from "./enter";
import { sent, signedIn } from "./visitor";

const UNREADABLE: Answer = { sentence: "Something in this form cannot be read. Look at each field." };

/** Hashing may have to wait behind a whole class. */
async function hashed(password: string): Promise<string | undefined> {
  try {
    return await hashPassword(password);
  } catch (e) {
    if (e instanceof Crowded) return undefined;
    throw e;
  }
}
const CROWDED: Answer = { sentence: new Crowded().message };

/** The first visit of all makes the administrator. */
export async function beFirst(values: unknown): Promise<Answer> {
  const r = FirstPerson.safeParse(values);
  if (!r.success) return UNREADABLE;
  const hash = await hashed(r.data.password);
  if (!hash) return CROWDED;
  const made = await makeFirst(r.data.name, r.data.email, hash);
  if (!made) return { sentence: "Somebody was quicker: there is an administrator now. Sign in." };
  return enter(made.id);
}

/** Always answers alike, whether there is such a person or not. */
export async function askForKey(values: unknown): Promise<Answer> {
  const r = Reminder.safeParse(values);
  if (!r.success) return UNREADABLE;
  const wait = await doorShutFor(r.data.email, await addressOf());
  if (!wait) await remind(r.data.email);
  return { done: "If somebody with this address is here, a letter with a link is on its way to them." };
}

export async function choosePassword(token: string, values: unknown): Promise<Answer> {
  const r = NewPassword.safeParse(values);
  if (!r.success) return UNREADABLE;
  const hash = await hashed(r.data.password);
  if (!hash) return CROWDED;
  const person = await spendKey(String(token), hash);
  if (!person) return { sentence: "This link has been used, or is too old. Ask for a new one." };
  await rightTry(person.email);
  return enter(person.id);
}

export async function changeName(values: unknown): Promise<Answer> {
  const person = await signedIn();
  const r = Rename.safeParse(values);
  if (!r.success) return UNREADABLE;
  await rename(person.id, r.data.name);
  revalidatePath("/account");
  return { done: "This is how the class sees you now." };
}

export async function changePassword(values: unknown): Promise<Answer> {
  const person = await signedIn();
  const read = ChangePassword.safeParse(values);
  if (!read.success) return UNREADABLE;
  const address = await addressOf();
  if (await doorShutFor(person.email, address)) return { sentence: "Too many wrong tries. Wait a while." };
  const right = await personByPassword(person.email, read.data.old);
  if (!right) {
    await wrongTry(person.email, address);
    return { sentence: "This is not the password you have." };
  }
  const hash = await hashed(read.data.password);
  if (!hash) return CROWDED;
  await setPassword(person.id, hash);
  const token = (await cookies()).get(COOKIE)?.value ?? "";
  await endSessions(person.id, { allBut: token });
  revalidatePath("/account");
  return { done: "Your password is changed. Everywhere else you are signed out." };
}

export async function endSession(form: FormData): Promise<void> {
  form = sent(form);
  const person = await signedIn();
  const id = z.uuid().safeParse(form.get("session"));
  const token = (await cookies()).get(COOKIE)?.value ?? "";
  await endSessions(person.id, id.success ? { id: id.data } : { allBut: token });
  revalidatePath("/account");
}

/** Comes into a course by the code on the board. */
export async function joinByCode(values: unknown): Promise<Answer> {
  const person = await signedIn();
  const read = Code.safeParse(values);
  if (!read.success) return UNREADABLE;
  const address = await addressOf();
  const key = `code ${person.id}`;
  const wait = await doorShutFor(key, address);
  if (wait) return { sentence: `Too many wrong codes. Try again in ${wait} s.` };
  const course = await courseByCode(read.data.code);
  if (!course) {
    await wrongTry(key, address);
    return { sentence: "No course is open under this code. Look at it once more, or ask your instructor." };
  }
  if (!(await enrolByCode(course.id, person.id)))
    return { sentence: `You were taken out of ${course.title}. Ask its instructor to bring you back.` };
  revalidatePath("/courses");
  return { done: `You are in ${course.title} now.` };
}

/** Takes an invitation up: as who is signed in, or as somebody new. */
export async function acceptAs(token: string): Promise<Answer> {
  const person = await signedIn();
  if (!(await accept(String(token), person))) return GONE;
  redirect("/courses");
}
const GONE: Answer = { sentence: "This invitation holds no more. Ask whoever sent it for another." };

export async function acceptAsNew(token: string, values: unknown): Promise<Answer> {
  const read = FirstPerson.safeParse(values);
  if (!read.success) return UNREADABLE;
  if (!(await offerOf(String(token)))) return GONE;
  if (await personByEmail(read.data.email))
    return { sentence: "Somebody with this address is here already. Sign in first, then open the link again." };
  const passwordHash = await hashed(read.data.password);
  if (!passwordHash) return CROWDED;
  const made = await makePerson({ name: read.data.name, email: read.data.email, passwordHash });
  if (!made) return { sentence: "Somebody with this address is here already. Sign in first." };
  if (!(await accept(String(token), made))) return GONE;
  return enter(made.id);
}
