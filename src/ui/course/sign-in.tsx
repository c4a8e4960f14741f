"use client";

import Link from "next/link";
import { signIn } from "@/app/actions";
import { useKeptForm } from "../parts/kept-form";

interface DemoPerson {
  readonly id: string;
  readonly name: string;
  readonly role: string;
}

/** The first page: sign in; in demo mode one click per demo person. */
export function SignIn({ demo, signInDemo }: { demo: DemoPerson[]; signInDemo: (form: FormData) => Promise<void> }) {
  const { said: state, busy: pending, onSubmit } = useKeptForm(signIn, {});
  const groups = [
    ["instructor", "Instructors"],
    ["assistant", "Assistant"],
    ["student", "Students"],
    ["administrator", "Who looks after the server"],
  ] as const;
  return (
    <main className="mx-auto grid min-h-full max-w-4xl content-center gap-10 p-8 md:grid-cols-2">
      <section>
        <h1 className="text-3xl font-semibold text-accent">Rusty Caliper</h1>
        <p className="mt-3 max-w-sm">
          Read the drawing, sketch and build the part, hand it in. Every part is measured against the drawing.
        </p>
        <form onSubmit={onSubmit} className="mt-8 max-w-xs space-y-3">
          <label className="block">
            <span className="quiet text-xs">Email</span>
            <input name="email" type="email" autoComplete="username" className="input w-full" required />
          </label>
          <label className="block">
            <span className="quiet text-xs">Password</span>
            <input name="password" type="password" autoComplete="current-password" className="input w-full" required />
          </label>
          {state.sentence && (
            <p role="alert" className="text-error">
              {state.sentence}
            </p>
          )}
          <button className="btn btn-primary w-full" disabled={pending}>
            Sign in
          </button>
          <Link className="quiet block text-sm underline" href="/forgot">
            I do not know my password
          </Link>
        </form>
      </section>
      {demo.length > 0 && (
        <section className="border-base-300 md:border-l md:pl-10">
          <h2 className="font-semibold">Look around as…</h2>
          <p className="quiet text-sm">
            Saltmarsh Technical College, made up, with two courses. One click signs you in.
          </p>
          {groups.map(([role, title]) => (
            <form key={role} action={signInDemo} className="mt-4">
              <h3 className="quiet text-xs">{title}</h3>
              <div className="mt-1 flex flex-wrap gap-2">
                {demo
                  .filter((p) => p.role === role)
                  .map((p) => (
                    <button key={p.id} name="person" value={p.id} className="btn btn-sm">
                      {p.name}
                    </button>
                  ))}
              </div>
            </form>
          ))}
        </section>
      )}
    </main>
  );
}
