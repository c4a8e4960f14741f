"use client";

import Link from "next/link";
import { useRef, useState } from "react";
import { useKeptForm } from "../parts/kept-form";
import { PageFrame } from "../parts/page-frame";
import type { Act } from "./give-station";
import { Way } from "./part-station";

/** A new exercise: what it is called, and three ways to its part. */
export function NewExercise({
  person,
  course,
  number,
  create,
}: {
  person: { name: string };
  course: { readonly id: string; readonly title: string };
  /** The next of the course. */
  number: string;
  create: Act;
}) {
  const { said, busy, onSubmit } = useKeptForm(create, {});
  const [isOver, setOver] = useState(false);
  const form = useRef<HTMLFormElement>(null),
    file = useRef<HTMLInputElement>(null),
    way = useRef<HTMLInputElement>(null);
  const go = (how: string) => {
    way.current!.value = how;
    form.current?.requestSubmit();
  };
  return (
    <div
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes("Files")) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={(e) => !e.currentTarget.contains(e.relatedTarget as Node | null) && setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        if (!e.dataTransfer.files.length) return;
        file.current!.files = e.dataTransfer.files;
        go("file");
      }}
    >
      <PageFrame person={person} trail={[{ href: "/courses", text: course.title }]}>
        <form ref={form} onSubmit={onSubmit} aria-label="New exercise">
          <h1 className="text-xl font-semibold">New exercise</h1>
          <input type="hidden" name="course" value={course.id} />
          <input type="hidden" name="way" ref={way} defaultValue="build" />
          <div className="mt-4 grid max-w-2xl grid-cols-[8rem_1fr] gap-3">
            <label>
              <span className="quiet block text-xs">Number</span>
              <input name="number" className="input w-full" defaultValue={number} maxLength={20} />
            </label>
            <label>
              <span className="quiet block text-xs">Title</span>
              <input name="title" className="input w-full" maxLength={120} placeholder="New exercise" autoFocus />
            </label>
          </div>
          <h2 className="mt-6 font-semibold">Where does its part come from?</h2>
          <div className={`mt-2 grid gap-4 sm:grid-cols-3 ${isOver ? "outline-2 outline-dashed outline-accent" : ""}`}>
            <Way title="Build the part" text="Draw and model it in the Bench; the Sheet follows by itself.">
              <button type="button" className="btn btn-primary" disabled={busy} onClick={() => go("build")}>
                Build it in the Bench
              </button>
            </Way>
            <Way
              title="Bring a file"
              text="A STEP file or a part document: choose it, or let go of it anywhere on this page."
            >
              <label className="btn focus-within:outline-2 focus-within:outline-offset-2">
                Choose a file
                <input
                  ref={file}
                  type="file"
                  name="part"
                  aria-label="Reference part (document), or a STEP file"
                  accept="application/json,.json,.step,.stp"
                  className="sr-only"
                  onChange={(e) => e.target.files?.length && go("file")}
                />
              </label>
            </Way>
            <Way
              title="Take one from the library"
              text="Exercises of all courses you teach, to be copied here and changed."
            >
              <Link className="btn" href={`/library?into=${course.id}`}>
                Open the library
              </Link>
            </Way>
          </div>
          {busy && (
            <p role="status" className="quiet mt-4">
              <span className="loading loading-dots loading-xs mr-1" />
              It is being made.
            </p>
          )}
          {said.sentence && !busy && (
            <p role="alert" className="mt-4 text-error">
              {said.sentence}
            </p>
          )}
        </form>
      </PageFrame>
    </div>
  );
}
