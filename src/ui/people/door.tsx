"use client";

import Link from "next/link";
import type { ReactNode } from "react";
import { Code, FirstPerson, NewPassword, Reminder } from "@/core/roster/forms";
import { ZodForm, type Answer, type FormField } from "../parts/zod-form";

type Act = (values: unknown) => Promise<Answer>;

const PASSWORDS: readonly FormField[] = [
  {
    name: "password",
    label: "Password",
    type: "password",
    autoComplete: "new-password",
    hint: "Ten characters at least: three words will do.",
  },
  { name: "again", label: "The same again", type: "password", autoComplete: "new-password" },
];
const WHO: readonly FormField[] = [
  { name: "name", label: "Your name, as the class uses it", autoComplete: "name" },
  { name: "email", label: "Email", type: "email", autoComplete: "username" },
];
const NOBODY = { name: "", email: "", password: "", again: "" };

/** A page with one thing to do, before somebody is in. */
function Door({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto grid min-h-full max-w-md content-center p-8">
      <Link href="/" className="font-semibold text-accent">
        Rusty Caliper
      </Link>
      <h1 className="mt-2 mb-4 text-xl font-semibold">{title}</h1>
      {children}
    </main>
  );
}

export const BeFirst = ({ act }: { act: Act }) => (
  <Door title="Nobody is here yet">
    <p className="mb-4">
      Whoever comes first looks after this server: makes courses, invites instructors, reads the outbox. Write down the
      password; there is nobody yet who could send you another.
    </p>
    <ZodForm schema={FirstPerson} fields={[...WHO, ...PASSWORDS]} initial={NOBODY} submit="Begin" act={act} />
  </Door>
);

export const ChoosePassword = ({ name, act }: { name: string; act: Act }) => (
  <Door title={`Choose a password, ${name}`}>
    <ZodForm
      schema={NewPassword}
      fields={PASSWORDS}
      initial={{ password: "", again: "" }}
      submit="Keep it and come in"
      act={act}
    />
  </Door>
);

export const AskForKey = ({ act }: { act: Act }) => (
  <Door title="A new password">
    <p className="mb-4">Type the address you sign in with. A letter with a link goes there.</p>
    <ZodForm
      schema={Reminder}
      fields={[{ name: "email", label: "Email", type: "email", autoComplete: "username" }]}
      initial={{ email: "" }}
      submit="Send me a link"
      act={act}
    />
  </Door>
);

/** An invitation, taken up by whoever is signed in or by somebody new. */
export function TakeUp({
  course,
  role,
  person,
  accept,
  acceptAsNew,
}: {
  course: string;
  role: string;
  person: { name: string } | undefined;
  accept: () => Promise<Answer>;
  acceptAsNew: Act;
}) {
  const as = role === "student" ? "a student" : `an ${role}`;
  return (
    <Door title={course}>
      <p className="mb-4">You are invited as {as}.</p>
      {person ? (
        <form action={async () => void (await accept())}>
          <button className="btn btn-primary">Come in as {person.name}</button>
        </form>
      ) : (
        <>
          <ZodForm
            schema={FirstPerson}
            fields={[...WHO, ...PASSWORDS]}
            initial={NOBODY}
            submit="Come in"
            act={acceptAsNew}
          />
          <p className="quiet mt-4 text-sm">
            You have an account here?{" "}
            <Link className="underline" href="/">
              Sign in
            </Link>{" "}
            first, then open the link once more.
          </p>
        </>
      )}
    </Door>
  );
}

export const Spent = () => (
  <Door title="This link holds no more">
    <p>
      It was used, withdrawn, or is too old. Ask whoever sent it for another, or{" "}
      <Link className="underline" href="/forgot">
        have one sent to your address
      </Link>
      .
    </p>
  </Door>
);

/** The code on the board. */
export const CodeForm = ({ act }: { act: Act }) => (
  <ZodForm
    row
    schema={Code}
    fields={[{ name: "code", label: "Code of a course" }]}
    initial={{ code: "" }}
    submit="Come in"
    act={act}
  />
);
