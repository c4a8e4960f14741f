"use client";

import { ChangePassword, Rename } from "@/core/roster/forms";
import type { Session } from "@/server/people/people";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { ZodForm, type Answer } from "../parts/zod-form";

type Act = (values: unknown) => Promise<Answer>;

/** One's own account: the name, the password, where one is signed in. */
export function AccountPage({
  person,
  sessions,
  acts,
}: {
  person: { name: string; email: string };
  sessions: readonly (Omit<Session, "opened_at"> & { openedAt: string })[];
  acts: { rename: Act; changePassword: Act; end: (form: FormData) => Promise<void> };
}) {
  return (
    <PageFrame person={person}>
      <h1 className="text-xl font-semibold">Your account</h1>
      <p className="quiet">You sign in as {person.email}.</p>
      <p className="mt-1 text-sm">
        <a className="text-accent underline" href="/api/account/data" download>
          Everything that is kept of you here, as one file
        </a>
      </p>
      <div className="mt-5 grid gap-8 lg:grid-cols-3">
        <section aria-labelledby="name">
          <h2 id="name" className="mb-2 font-semibold">
            Name
          </h2>
          <ZodForm
            key={person.name}
            schema={Rename}
            fields={[{ name: "name", label: "As the class uses it", autoComplete: "name" }]}
            initial={{ name: person.name }}
            submit="Keep"
            act={acts.rename}
          />
        </section>
        <section aria-labelledby="password">
          <h2 id="password" className="mb-2 font-semibold">
            Password
          </h2>
          <ZodForm
            schema={ChangePassword}
            fields={[
              { name: "old", label: "The one you have", type: "password", autoComplete: "current-password" },
              { name: "password", label: "A new one", type: "password", autoComplete: "new-password" },
              { name: "again", label: "The new one again", type: "password", autoComplete: "new-password" },
            ]}
            initial={{ old: "", password: "", again: "" }}
            submit="Change it"
            act={acts.changePassword}
          />
        </section>
        <section aria-labelledby="sessions">
          <h2 id="sessions" className="mb-2 font-semibold">
            Signed in
          </h2>
          <ul className="space-y-2">
            {sessions.map((s) => (
              <li key={s.id} className="text-sm">
                <span className="block">{browserOf(s.agent)}</span>
                <span className="quiet">
                  since <LocalTime iso={s.openedAt} />
                </span>{" "}
                {s.own ? (
                  <b className="font-semibold">this one</b>
                ) : (
                  <form action={acts.end} className="inline">
                    <button name="session" value={s.id} className="btn btn-ghost btn-xs">
                      Sign out there
                    </button>
                  </form>
                )}
              </li>
            ))}
          </ul>
          {sessions.length > 1 && (
            <form action={acts.end} className="mt-3">
              <button className="btn btn-sm">Sign out everywhere else</button>
            </form>
          )}
        </section>
      </div>
    </PageFrame>
  );
}

/** What a person would call it: the kind of machine. */
function browserOf(agent: string): string {
  const machine = /Windows|Android|iPhone|iPad|Mac|Linux|X11/.exec(agent)?.[0];
  if (!machine) return "A browser";
  return `A browser on ${machine === "X11" ? "Linux" : machine}`;
}
