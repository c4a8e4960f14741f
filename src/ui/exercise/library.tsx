"use client";

import Link from "next/link";
import { useRef, useState } from "react";
import type { LibraryRow } from "@/server/library/library";
import { courseText } from "../parts/course-text";
import { CardWall, LookChoice, useLook } from "../parts/card-wall";
import { PartPicture } from "../parts/part-picture";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";

type Row = Omit<LibraryRow, "changed_at"> & { changedAt: string };
interface Course {
  readonly id: string;
  readonly title: string;
  readonly term: string;
}

export const LEVELS = ["", "first steps", "practised", "demanding"] as const;
const minutesText = (m: number) => (m >= 90 ? `${Number((m / 60).toFixed(1))} h` : `${m} min`);

/** Exercises across courses: searched, taken over into another, and brought in from files. */
export function LibraryPage({
  person,
  wanted,
  exercises,
  isCut,
  tags,
  courses,
  duplicate,
  into,
}: {
  /** The course that one is looked for. */
  into?: string | undefined;
  person: { name: string };
  wanted: { text: string; tag: string; level: number | undefined };
  exercises: readonly Row[];
  /** There are more than are shown. */
  isCut: boolean;
  tags: readonly { readonly tag: string; readonly count: number }[];
  courses: readonly Course[];
  duplicate: (form: FormData) => Promise<void>;
}) {
  const [look, choose] = useLook();
  const isFiltered = Boolean(wanted.text || wanted.tag || wanted.level);
  return (
    <PageFrame person={person}>
      <h1 className="text-xl font-semibold">Exercises of all your courses</h1>
      <form className="no-print mt-3 flex flex-wrap items-center gap-3" role="search">
        <input
          type="search"
          name="q"
          className="input input-sm w-72"
          aria-label="Search number, title, brief, material, tags"
          placeholder="Search number, title, brief, material, tags"
          defaultValue={wanted.text}
        />
        <select name="tag" className="select select-sm w-44" aria-label="Tag" defaultValue={wanted.tag}>
          <option value="">any tag</option>
          {tags.map((t) => (
            <option key={t.tag} value={t.tag}>
              {t.tag} ({t.count})
            </option>
          ))}
        </select>
        <select name="level" className="select select-sm w-40" aria-label="Level" defaultValue={wanted.level ?? ""}>
          <option value="">any level</option>
          {LEVELS.slice(1).map((l, i) => (
            <option key={l} value={i + 1}>
              {l}
            </option>
          ))}
        </select>
        <button className="btn btn-sm">Search</button>
        {isFiltered && (
          <Link className="text-sm text-accent underline" href="/library">
            Show all
          </Link>
        )}
        <span className="quiet text-sm" role="status">
          {exercises.length} {exercises.length === 1 ? "exercise" : "exercises"}
          {isCut && ", and more: search closer"}
        </span>
        <LookChoice look={look} choose={choose} />
      </form>
      {exercises.length > 0 && look === "cards" && (
        <CardWall
          label="Exercises"
          cards={exercises.map((x) => ({
            id: x.id,
            href: `/exercises/${x.id}`,
            title: `${x.number} ${x.title}`,
            picture: x.pictured,
            alt: "",
            children: <span className="quiet">{courseText({ title: x.course, term: x.term })}</span>,
          }))}
        />
      )}
      {exercises.length > 0 && look === "rows" && (
        <Table exercises={exercises} courses={courses} duplicate={duplicate} into={into} />
      )}
      {!exercises.length && (
        <p className="mt-6">
          {isFiltered
            ? "Nothing is like that. Search for less."
            : courses.length
              ? "There are no exercises yet. Make one on the page of a course, or bring a package in below."
              : "You teach no course yet: exercises belong to courses."}
        </p>
      )}
      {courses.length > 0 && <BringIn courses={courses} />}
    </PageFrame>
  );
}

function Table({
  exercises,
  courses,
  duplicate,
  into,
}: {
  into: string | undefined;
  exercises: readonly Row[];
  courses: readonly Course[];
  duplicate: (form: FormData) => Promise<void>;
}) {
  return (
    <table className="table mt-4">
      <thead>
        <tr>
          <th className="w-20">
            <span className="sr-only">Picture</span>
          </th>
          <th>Number</th>
          <th>Title</th>
          <th>Course</th>
          <th>Level</th>
          <th className="text-right">Time</th>
          <th className="text-right">Issued</th>
          <th>Changed</th>
          <th className="no-print" />
        </tr>
      </thead>
      <tbody>
        {exercises.map((row) => (
          <tr key={row.id} className="hover:bg-base-200">
            <td className="py-1">
              <PartPicture hash={row.pictured} alt="" />
            </td>
            <td className="figures whitespace-nowrap">{row.number || "–"}</td>
            <td>
              <Link className="font-medium hover:underline" href={`/exercises/${row.id}`}>
                {row.title}
              </Link>
              <span className="quiet block text-xs">
                {[
                  row.material,
                  row.series && `${row.series}, part ${row.place}`,
                  row.varies && "own numbers",
                  ...row.tags,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </td>
            <td>{courseText({ title: row.course, term: row.term })}</td>
            <td className="whitespace-nowrap">{row.level ? LEVELS[row.level] : "–"}</td>
            <td className="figures whitespace-nowrap text-right">{row.minutes ? minutesText(row.minutes) : "–"}</td>
            <td className="figures text-right">{row.issued || "–"}</td>
            <td className="whitespace-nowrap">
              <LocalTime iso={row.changedAt} />
            </td>
            <td className="no-print text-right">
              <form action={duplicate} className="flex justify-end gap-1">
                <input type="hidden" name="id" value={row.id} />
                <select
                  name="course"
                  className="select select-xs w-52"
                  aria-label={`Course to copy ${row.number} ${row.title} into`}
                  defaultValue={into ?? row.course_id}
                >
                  {courses.map((c) => (
                    <option key={c.id} value={c.id}>
                      {courseText(c)}
                    </option>
                  ))}
                </select>
                <button className="btn btn-xs">Copy into</button>
              </form>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Exercises from a package or a document, into a course. */
function BringIn({ courses }: { courses: readonly Course[] }) {
  const [said, setSaid] = useState<{ text: string; isTrouble: boolean }>();
  const [busy, setBusy] = useState(false);
  const [course, setCourse] = useState(courses[0]!.id);
  const file = useRef<HTMLInputElement>(null);
  const send = async () => {
    const chosen = file.current?.files?.[0];
    if (!chosen) return setSaid({ text: "Choose a file first.", isTrouble: true });
    setBusy(true);
    try {
      const r = await fetch(`/api/courses/${course}/package`, { method: "POST", body: chosen });
      const data = (await r.json().catch(() => ({}))) as { sentence?: string; exercises?: string[] };
      if (r.ok) {
        const n = data.exercises?.length ?? 0;
        setSaid({ text: `${n} ${n === 1 ? "exercise is" : "exercises are"} in the course now.`, isTrouble: false });
        file.current!.value = "";
      } else setSaid({ text: data.sentence ?? "It could not be taken in.", isTrouble: true });
    } catch {
      setSaid({ text: "There is no connection to the server. Nothing was taken in; try again.", isTrouble: true });
    }
    setBusy(false);
  };
  return (
    <section className="no-print mt-8 border-t border-base-300 pt-4" aria-labelledby="bring-in">
      <h2 id="bring-in" className="font-semibold">
        Packages
      </h2>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <label>
          <span className="quiet block text-xs">Course</span>
          <select className="select select-sm w-64" value={course} onChange={(e) => setCourse(e.target.value)}>
            {courses.map((c) => (
              <option key={c.id} value={c.id}>
                {courseText(c)}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="quiet block text-xs">A package (zip) or an exercise document (JSON)</span>
          <input ref={file} type="file" accept=".zip,.json" className="file-input file-input-sm w-80" />
        </label>
        <button className="btn btn-sm" disabled={busy} onClick={() => void send()}>
          Bring it in
        </button>
        <a className="btn btn-sm" href={`/api/courses/${course}/package`} download>
          All exercises of this course as a package
        </a>
      </div>
      {said && (
        <p role={said.isTrouble ? "alert" : "status"} className={`mt-2 ${said.isTrouble ? "text-error" : "quiet"}`}>
          {said.text}
        </p>
      )}
    </section>
  );
}
