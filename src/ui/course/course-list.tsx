import Link from "next/link";
import { areTriesUsed, triesLeftText } from "@/core/grade/late";
import type { HandoutRow } from "@/server/courses/courses";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import type { Answer } from "../parts/zod-form";
import { CodeForm } from "../people/door";
import { WarmKernel } from "./warm-kernel";

type Handout = Omit<HandoutRow, "due_at" | "opens_at" | "closes_at" | "withdrawn_at" | "worked_at"> & {
  due_at: string;
  opens_at: string | null;
  withdrawn_at: string | null;
  worked_at: string | null;
  /** It opens later. */
  isAhead: boolean;
};
interface Course {
  readonly id: string;
  readonly title: string;
  readonly term: string;
  readonly role: string;
  readonly handouts: readonly Handout[];
  readonly exercises: readonly { id: string; number: string; title: string }[];
}

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
      </div>
      {course.handouts.length ? (
        <table className="table mt-1">
          <thead>
            <tr>
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
      ) : (
        <p className="quiet mt-1">Nothing issued yet. Open an exercise below and make a handout of it.</p>
      )}
      {course.role === "instructor" && <Exercises course={course} />}
    </>
  );
}

function Learning({ course, me }: { course: Course; me: string }) {
  if (!course.handouts.length)
    return <p className="quiet mt-2">No handouts yet. They appear here when your instructor issues them.</p>;
  return (
    <>
      <WarmKernel me={me} next={lastWorkedAt(course).join()} />
      <table className="table mt-3">
        <thead>
          <tr>
            <th>Number</th>
            <th>Title</th>
            <th>Due</th>
            <th className="text-right">Result</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {course.handouts.map((h) => (
            <tr key={h.id} className="hover:bg-base-200">
              <td className="figures">{h.number}</td>
              <td>
                <Link className="font-medium hover:underline" href={`/bench/${h.id}`}>
                  {h.title}
                </Link>
              </td>
              <td>
                <LocalTime iso={h.due_at} zone={h.time_zone} />
              </td>
              <td className="figures text-right">
                {h.my_submission ? (
                  <Link className="hover:underline" href={`/submissions/${h.my_submission}`}>
                    {h.my_late && <span className="text-accent">late · </span>}
                    {h.my_turn === "student" && <span className="text-accent">a question for you · </span>}
                    {resultText(h)}
                  </Link>
                ) : (
                  <span className="quiet">{h.worked_at ? "begun" : "not opened"}</span>
                )}
              </td>
              <td className="text-right">
                <Way handout={h} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The parts that were changed last are those most go on with, the last first. */
function lastWorkedAt({ handouts }: Course): readonly string[] {
  const begun = handouts.filter((h) => h.worked_at).sort((a, b) => b.worked_at!.localeCompare(a.worked_at!));
  return begun.slice(0, AHEAD).map((h) => h.id);
}
/** So many are built before they are opened. */
const AHEAD = 3;

/** The way to a student's part: on with it, or only to look where every try is used. */
function Way({ handout: h }: { handout: Handout }) {
  const tries = { used: h.my_tries, most: h.attempts_most };
  const isOver = areTriesUsed(tries);
  const text = h.worked_at ? "Go on" : "Begin";
  return (
    <Link
      className={`btn btn-sm ${h.my_submission ? "" : "btn-primary"}`}
      href={`/bench/${h.id}`}
      title={isOver ? triesLeftText(tries) : undefined}
    >
      {isOver ? "Your part" : text}
    </Link>
  );
}

/** What a student sees of their newest try, in a word. */
function resultText(h: Handout): string {
  if (h.my_points !== null) return `${h.my_points} / ${h.of}`;
  if (h.mine === "failed") return "not checked";
  return h.mine === "checked" ? "handed in" : "being checked";
}

function Exercises({ course }: { course: Course }) {
  return (
    <>
      <h2 className="mt-8 font-semibold">Exercises</h2>
      <ul className="mt-1 max-w-xl divide-y divide-base-300 border-y border-base-300">
        {course.exercises.map((e) => (
          <li key={e.id}>
            <Link className="flex gap-4 px-3 py-2 hover:bg-base-200" href={`/exercises/${e.id}`}>
              <span className="figures w-20">{e.number || "–"}</span>
              {e.title}
            </Link>
          </li>
        ))}
      </ul>
      <Link className="btn btn-sm mt-3" href={`/exercises/new?course=${course.id}`}>
        New exercise
      </Link>
    </>
  );
}
