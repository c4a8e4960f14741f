import { cookies } from "next/headers";
import { notFound, redirect } from "next/navigation";
import { z } from "zod";
import { Denied, permit, type Action, type Role } from "@/server/permissions";
import { personOfSession, type Person } from "@/server/people/people";
import { cut, fit } from "@/core/units/text";
import { COOKIE } from "./cookie";

export async function visitor(): Promise<Person | undefined> {
  const token = (await cookies()).get(COOKIE)?.value;
  return token ? personOfSession(token) : undefined;
}

/** The signed-in person, or off to the first page. */
export async function signedIn(): Promise<Person> {
  return (await visitor()) ?? redirect("/");
}

/** Whoever looks after the server. */
export async function administrating(): Promise<Person> {
  const person = await signedIn();
  return (await allowed("server.run", person.id)).person;
}

/** Signed in and allowed, or the page that says there is nothing here. */
export async function allowed(action: Action, id: string): Promise<{ person: Person; role: Role }> {
  const person = await signedIn();
  try {
    return { person, role: await permit(person, action, id) };
  } catch (e) {
    if (e instanceof Denied) notFound();
    throw e;
  }
}

/** What a page is asked to look for; what nobody can type is looked for as the sign for that. */
export const askedText = (asked: string | string[] | undefined): string =>
  cut(typeof asked === "string" ? fit(asked) : "", 80);

/** The form an action was sent. Whoever calls it with something else finds nothing. */
export const sent = (form: unknown): FormData => (form instanceof FormData ? form : notFound());

/** An id an action was sent, likewise. */
export const sentId = (id: unknown): string => z.uuid().safeParse(id).data ?? notFound();
