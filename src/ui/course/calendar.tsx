import Link from "next/link";
import type { CalendarEntry } from "@/server/courses/calendar";
import { PageFrame } from "../parts/page-frame";

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const two = (n: number) => String(n).padStart(2, "0");

/** The days of a month in whole weeks, Monday first, as "2026-12-01"; those of its neighbours fill up. */
function weeksOf(month: string): string[][] {
  const [year, number] = month.split("-").map(Number) as [number, number];
  const first = new Date(Date.UTC(year, number - 1, 1));
  const before = (first.getUTCDay() + 6) % 7;
  const count = new Date(Date.UTC(year, number, 0)).getUTCDate();
  const weeks = Math.ceil((before + count) / 7);
  return Array.from({ length: weeks }, (_, w) =>
    DAYS.map((__, d) => new Date(Date.UTC(year, number - 1, 1 - before + 7 * w + d)).toISOString().slice(0, 10)),
  );
}
function monthBeside(month: string, by: number): string {
  const [year, number] = month.split("-").map(Number) as [number, number];
  const d = new Date(Date.UTC(year, number - 1 + by, 1));
  return `${d.getUTCFullYear()}-${two(d.getUTCMonth() + 1)}`;
}
const monthText = (month: string) =>
  new Intl.DateTimeFormat("en-GB", { month: "long", year: "numeric", timeZone: "UTC" }).format(
    new Date(`${month}-01T00:00:00Z`),
  );

/** What opens, is due and closes in a course, a month at a time. */
export function CalendarPage({
  person,
  course,
  month,
  today,
  entries,
  isStudent,
}: {
  person: { name: string };
  course: { id: string; title: string; term: string; timeZone: string };
  month: string;
  today: string;
  entries: readonly CalendarEntry[];
  isStudent: boolean;
}) {
  const at = (by: number) => `/courses/${course.id}/calendar?month=${monthBeside(month, by)}`;
  const isElsewhere = !entries.some((e) => e.day.startsWith(month));
  const next = entries.find((e) => e.day >= today);
  return (
    <PageFrame
      person={person}
      actions={
        <a className="btn btn-ghost btn-sm" href={`/api/courses/${course.id}/calendar`} download>
          For your own calendar
        </a>
      }
    >
      <h1 className="text-xl font-semibold">
        {course.title} <span className="quiet text-base font-normal">{course.term}</span>
      </h1>
      <div className="mt-2 flex items-center gap-3">
        <h2 className="w-44 font-semibold">{monthText(month)}</h2>
        <nav className="no-print flex gap-2" aria-label="Months">
          <Link className="btn btn-sm" href={at(-1)}>
            Month before
          </Link>
          <Link className="btn btn-sm" href={at(1)}>
            Month after
          </Link>
          {!today.startsWith(month) && (
            <Link className="btn btn-sm" href={`/courses/${course.id}/calendar`}>
              Today
            </Link>
          )}
        </nav>
        <span className="quiet text-sm">by the clock of {course.timeZone.replaceAll("_", " ")}</span>
      </div>
      {isElsewhere && (
        <p className="quiet mt-2">
          Nothing opens, is due or closes in this month.{" "}
          {next && (
            <Link
              className="text-accent underline"
              href={`/courses/${course.id}/calendar?month=${next.day.slice(0, 7)}`}
            >
              The next is in {monthText(next.day.slice(0, 7))}.
            </Link>
          )}
        </p>
      )}
      <table className="mt-3 w-full table-fixed border-collapse text-sm">
        <thead>
          <tr>
            {DAYS.map((d) => (
              <th key={d} className="quiet px-2 pb-1 text-left text-xs font-normal">
                {d}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weeksOf(month).map((week) => (
            <tr key={week[0]}>
              {week.map((day) => (
                <Day
                  key={day}
                  day={day}
                  isOther={!day.startsWith(month)}
                  isToday={day === today}
                  entries={entries.filter((e) => e.day === day)}
                  isStudent={isStudent}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </PageFrame>
  );
}

function Day({
  day,
  isOther,
  isToday,
  entries,
  isStudent,
}: {
  day: string;
  isOther: boolean;
  isToday: boolean;
  entries: readonly CalendarEntry[];
  isStudent: boolean;
}) {
  return (
    <td
      className={`h-24 border border-base-300 p-1.5 align-top ${isOther ? "bg-base-200/60" : ""}`}
      aria-current={isToday ? "date" : undefined}
    >
      <span className={`figures text-xs ${isToday ? "rounded-field bg-accent px-1 text-accent-content" : "quiet"}`}>
        {Number(day.slice(8))}
      </span>
      <ul className="mt-0.5 space-y-0.5">
        {entries.map((entry) => (
          <li key={`${entry.handout} ${entry.what}`} className={entry.isWithdrawn ? "line-through" : ""}>
            <Link
              className="block leading-tight hover:underline"
              href={isStudent ? `/bench/${entry.handout}` : `/handouts/${entry.handout}`}
              title={`${entry.number} ${entry.title} ${entry.what} ${entry.time}`}
            >
              <b className={entry.what === "due" && !entry.isDone ? "text-accent" : ""}>{entry.what}</b>{" "}
              <span className="text-xs tabular-nums">{entry.time}</span>
              <span className="block truncate text-xs">
                {entry.number} {entry.title}
                {isStudent && entry.isDone && entry.what === "due" && " · handed in"}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </td>
  );
}
