"use client";

import Link from "next/link";
import type { Course } from "./course";
import { LocalTime } from "../parts/local-time";
import { CardWall, LookChoice, useLook, type Look } from "../parts/card-wall";
import { PartPicture } from "../parts/part-picture";
import { PageFrame } from "../parts/page-frame";
import type { Answer } from "../parts/zod-form";
import { CodeForm } from "../people/door";
import { Learning } from "./learning";

/** Courses with their handouts; for instructors also the exercises to issue. */
export function CourseList({
  person,
  courses,
  signOut,
  join,
  isAdministrator,
}: {
  person: { id: string; name: string };
  courses: readonly Course[];
  signOut: () => Promise<void>;
  join: (values: unknown) => Promise<Answer>;
  isAdministrator: boolean;
}) {
  return (
    <PageFrame
      person={person}
      actions={
        <>
          {courses.some((c) => c.role === "instructor") && (
            <Link className="btn btn-ghost btn-sm" href="/library">
              All exercises
            </Link>
          )}
          {isAdministrator && (
            <Link className="btn btn-ghost btn-sm" href="/administration">
              People and courses
            </Link>
          )}
          <Link className="btn btn-ghost btn-sm" href="/account">
            Your account
          </Link>
          <form action={signOut}>
            <button className="btn btn-ghost btn-sm">Sign out</button>
          </form>
        </>
      }
    >
      {!courses.length &&
        (isAdministrator ? (
          <p>
            You look after this server.{" "}
            <Link className="underline" href="/administration">
              People and courses
            </Link>{" "}
            is where you make the first course;{" "}
            <Link className="underline" href="/running">
              what runs here
            </Link>{" "}
            shows what waits and what failed.
          </p>
        ) : (
          <p>You are in no course yet. Your instructor adds you to one, or gives you a code to type here.</p>
        ))}
      {courses.map((c) => (
        <section key={c.id} className="mb-10">
          <h1 className="flex items-baseline gap-3 text-xl font-semibold">
            {c.title}
            {c.term && <span className="quiet text-base font-normal">{c.term}</span>}
            <span className="ml-auto flex gap-2">
              <Link className="btn btn-sm" href={`/courses/${c.id}/calendar`}>
                Calendar
              </Link>
              {c.role !== "student" && (
                <Link className="btn btn-sm" href={`/courses/${c.id}/gradebook`}>
                  Gradebook
                </Link>
              )}
              {c.role === "instructor" && (
                <Link className="btn btn-sm" href={`/courses/${c.id}/people`}>
                  People
                </Link>
              )}
            </span>
          </h1>
          {c.role === "student" ? <Learning course={c} me={person.id} /> : <Teaching course={c} />}
        </section>
      ))}
      {courses.every((c) => c.role === "student") && <CodeForm act={join} />}
    </PageFrame>
  );
}

function Teaching({ course }: { course: Course }) {
  const [look, choose] = useLook();
  return (
    <>
      <div className="mt-5 flex items-baseline gap-4">
        <h2 className="font-semibold">Handouts</h2>
        {course.handouts.length > 0 && (
          <a
            className="no-print text-sm text-accent hover:underline"
            href={`/api/courses/${course.id}/sheets`}
            target="_blank"
            rel="noreferrer"
          >
            All Sheets as one PDF
          </a>
        )}
        <span className="ml-auto">
          <LookChoice look={look} choose={choose} />
        </span>
      </div>
      {course.handouts.length > 0 && look === "cards" && <HandoutCards course={course} />}
      {course.handouts.length > 0 && look === "rows" && (
        <table className="table mt-1">
          <thead>
            <tr>
              <th className="w-20">
                <span className="sr-only">Part</span>
              </th>
              <th>Number</th>
              <th>Title</th>
              <th>Due</th>
              <th className="text-right">Handed in</th>
              <th className="text-right">To look at</th>
            </tr>
          </thead>
          <tbody>
            {course.handouts.map((h) => (
              <tr key={h.id} className="hover:bg-base-200">
                <td className="py-1">
                  <PartPicture hash={h.pictured} alt="" />
                </td>
                <td className="figures">{h.number}</td>
                <td>
                  <Link className="font-medium hover:underline" href={`/handouts/${h.id}`}>
                    {h.title}
                  </Link>
                </td>
                <td>
                  <LocalTime iso={h.due_at} zone={h.time_zone} />
                  {h.isAhead && h.opens_at && (
                    <span className="quiet block text-xs">
                      opens <LocalTime iso={h.opens_at} />
                    </span>
                  )}
                  {h.withdrawn_at && <span className="quiet block text-xs">withdrawn</span>}
                </td>
                <td className="figures text-right">
                  {h.handed_in} of {h.students}
                </td>
                <td className={`figures text-right ${h.to_look_at ? "font-bold text-accent" : ""}`}>{h.to_look_at}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!course.handouts.length && (
        <p className="quiet mt-1">Nothing issued yet. Open an exercise below and make a handout of it.</p>
      )}
      {course.role === "instructor" && <Exercises course={course} look={look} />}
    </>
  );
}

/** Handouts as a class is looked after, by the look of their parts. */
function HandoutCards({ course }: { course: Course }) {
  return (
    <CardWall
      label="Handouts"
      cards={course.handouts.map((h) => ({
        id: h.id,
        href: `/handouts/${h.id}`,
        title: `${h.number} ${h.title}`,
        picture: h.pictured,
        alt: "",
        children: (
          <>
            <LocalTime iso={h.due_at} zone={h.time_zone} />
            <span className="figures block">
              {h.handed_in} of {h.students} handed in
              {h.to_look_at > 0 && <b className="block text-accent">{h.to_look_at} to look at</b>}
            </span>
          </>
        ),
      }))}
    />
  );
}

function Exercises({ course, look }: { course: Course; look: Look }) {
  return (
    <>
      <h2 className="mt-8 font-semibold">Exercises</h2>
      {look === "rows" ? (
        <ul className="mt-1 max-w-xl divide-y divide-base-300 border-y border-base-300">
          {course.exercises.map((e) => (
            <li key={e.id}>
              <Link className="flex items-center gap-4 px-3 py-1 hover:bg-base-200" href={`/exercises/${e.id}`}>
                <PartPicture hash={e.pictured} alt="" />
                <span className="figures w-20">{e.number || "–"}</span>
                {e.title}
              </Link>
            </li>
          ))}
        </ul>
      ) : (
        <CardWall
          label="Exercises"
          cards={course.exercises.map((e) => ({
            id: e.id,
            href: `/exercises/${e.id}`,
            title: `${e.number} ${e.title}`,
            picture: e.pictured,
            alt: "",
          }))}
        />
      )}
      <Link className="btn btn-sm mt-3" href={`/exercises/new?course=${course.id}`}>
        New exercise
      </Link>
    </>
  );
}
