"use client";

import Link from "next/link";
import { useState } from "react";
import { NewCourse } from "@/core/roster/forms";
import { courseText } from "../parts/course-text";
import { DenseTable, type Column } from "../parts/dense-table";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { ZodForm, type Answer } from "../parts/zod-form";
import { TakeAway } from "./take-away";

interface CourseLine {
  readonly id: string;
  readonly title: string;
  readonly term: string;
  readonly instructors: string | null;
  readonly students: number;
}
interface PersonLine {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly administrator: boolean;
  readonly has_entered: boolean;
  readonly courses: number;
  /** How many there are like this, shown or not. */
  readonly found: number;
}
interface LetterLine {
  readonly id: string;
  readonly address: string;
  readonly subject: string;
  readonly body: string;
  readonly madeAt: string;
  readonly sentAt: string | null;
  readonly trouble: string | null;
}

const COURSES: readonly Column<CourseLine>[] = [
  { id: "title", header: "Course", value: (c) => c.title },
  { id: "term", header: "Term", value: (c) => c.term },
  { id: "instructors", header: "Instructors", value: (c) => c.instructors ?? "nobody yet" },
  { id: "students", header: "Students", value: (c) => c.students, right: true },
];
const PEOPLE: readonly Column<PersonLine>[] = [
  { id: "name", header: "Name", value: (p) => p.name },
  { id: "email", header: "Email", value: (p) => p.email },
  { id: "courses", header: "Courses", value: (p) => p.courses, right: true },
  {
    id: "standing",
    header: "Standing",
    value: (p) => (p.administrator ? "looks after the server" : p.has_entered ? "in" : "has not come in yet"),
  },
];

interface About {
  readonly person: { name: string; email: string };
  readonly courses: readonly CourseLine[];
  readonly people: readonly PersonLine[];
  /** What was searched for among them. */
  readonly wanted: string;
  readonly letters: readonly LetterLine[];
  readonly hasMail: boolean;
  /** Courses in which nothing was due for long. */
  readonly resting: readonly { readonly id: string; readonly name: string }[];
  readonly newCourse: Act;
  readonly takePersonAway: Act;
  readonly takeCourseAway: Act;
}
type Act = (values: unknown) => Promise<Answer>;

/** All courses and people, and the letters that went out or wait. */
export function AdministrationPage({
  person,
  courses,
  people,
  wanted,
  letters,
  hasMail,
  resting,
  newCourse,
  takePersonAway,
  takeCourseAway,
}: About) {
  return (
    <PageFrame
      person={person}
      actions={
        <Link className="btn btn-ghost btn-sm" href="/running">
          What runs here
        </Link>
      }
    >
      <h1 className="text-xl font-semibold">People and courses</h1>
      <Courses {...{ person, courses, resting, newCourse, takeCourseAway }} />
      <People {...{ people, wanted, takePersonAway }} />
      <Outbox letters={letters} hasMail={hasMail} />
    </PageFrame>
  );
}

function Courses({
  person,
  courses,
  resting,
  newCourse,
  takeCourseAway,
}: Pick<About, "person" | "courses" | "resting" | "newCourse" | "takeCourseAway">) {
  return (
    <section className="mt-4" aria-labelledby="courses">
      <h2 id="courses" className="font-semibold">
        Courses
      </h2>
      <DenseTable
        label="Courses"
        search="Search courses"
        rows={courses}
        columns={COURSES}
        empty="No course yet. Make the first one here: its instructor gets a letter with a way in."
      />
      <div className="mt-3">
        <ZodForm
          row
          schema={NewCourse}
          fields={[
            { name: "title", label: "New course" },
            { name: "term", label: "Term" },
            { name: "timeZone", label: "Time zone" },
            { name: "email", label: "Its instructor’s email", type: "email" },
          ]}
          initial={{
            title: "",
            term: "",
            timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
            email: courses.length ? "" : person.email,
          }}
          submit="Make it"
          act={newCourse}
        />
      </div>
      {resting.length > 0 && (
        <p className="mt-3 text-sm">
          Nothing was due for two years in {resting.map((c) => c.name).join(", ")}: decide whether they may go.
        </p>
      )}
      <TakeAway
        what="a course"
        things={courses.map((c) => ({ id: c.id, name: courseText(c) }))}
        stays="Its exercises, handouts, submissions and results go for good. Its points stay, without names."
        act={takeCourseAway}
      />
    </section>
  );
}

function People({ people, wanted, takePersonAway }: Pick<About, "people" | "wanted" | "takePersonAway">) {
  return (
    <section className="mt-8" aria-labelledby="people">
      <h2 id="people" className="font-semibold">
        People
      </h2>
      <form className="my-2 flex items-center gap-3">
        <input
          type="search"
          name="q"
          aria-label="Search names and addresses"
          placeholder="Search names and addresses"
          className="input input-sm w-64"
          defaultValue={wanted}
        />
        <button className="btn btn-sm">Search</button>
        <span className="quiet text-xs" role="status">
          {people.length} of {people[0]?.found ?? 0}
        </span>
      </form>
      <DenseTable label="Everybody" rows={people} columns={PEOPLE} empty="Nobody is called so." search={undefined} />
      <TakeAway
        what="a person"
        things={people.map((p) => ({ id: p.id, name: p.name }))}
        stays="Account, parts, submissions, results and questions go for good. The points stay, without the name."
        dataOf={(id) => `/api/account/data?of=${id}`}
        act={takePersonAway}
      />
    </section>
  );
}

/** Letters that went out or wait; a click shows one. */
function Outbox({ letters, hasMail }: Pick<About, "letters" | "hasMail">) {
  const [open, setOpen] = useState<string>();
  return (
    <section className="mt-8" aria-labelledby="outbox">
      <h2 id="outbox" className="font-semibold">
        Outbox
      </h2>
      <p className="quiet text-sm">
        {hasMail
          ? "Letters go out by the mail server that is set up."
          : "No mail server is set up: read letters here and hand their links on. SMTP_URL sets one up."}
      </p>
      {!letters.length && <p className="quiet mt-2">No letters yet.</p>}
      <ul className="mt-2 divide-y divide-base-300">
        {letters.map((line) => (
          <li key={line.id} className="py-1.5">
            <button
              className="cursor-pointer text-left hover:underline"
              aria-expanded={open === line.id}
              onClick={() => setOpen(open === line.id ? undefined : line.id)}
            >
              {line.subject} <span className="quiet">to {line.address}, </span>
              <LocalTime iso={line.madeAt} />
            </button>
            <span className="quiet ml-2 text-xs">{line.sentAt ? "sent" : (line.trouble ?? "waits")}</span>
            {open === line.id && <pre className="figures mt-2 text-xs break-all whitespace-pre-wrap">{line.body}</pre>}
          </li>
        ))}
      </ul>
    </section>
  );
}
