import { handoutsOf } from "./courses";
import { clockIn } from "./moments";
import type { Person } from "../people/people";
import { fit } from "@/core/units/text";

/** Something of a handout that falls on a day, by the clock of its course. */
export interface CalendarEntry {
  readonly handout: string;
  readonly number: string;
  readonly title: string;
  readonly what: "opens" | "due" | "closes";
  /** "2026-12-01" and "18:00". */
  readonly day: string;
  readonly time: string;
  readonly at: string;
  /** Of a student: it was handed in. */
  readonly isDone: boolean;
  readonly isWithdrawn: boolean;
}

/** When the handouts of a course open, are due and close, as this person has them. */
export async function calendarOf(courseId: string, timeZone: string, person: Person): Promise<CalendarEntry[]> {
  const entries = (await handoutsOf(courseId, person)).flatMap((row) => {
    const on = (what: CalendarEntry["what"], at: Date | null): CalendarEntry[] => {
      if (!at) return [];
      const [day = "", time = ""] = clockIn(timeZone, at).split("T");
      const { id, number, title } = row;
      const isDone = row.my_submission !== null;
      return [
        {
          handout: id,
          number,
          title,
          what,
          day,
          time,
          at: at.toISOString(),
          isDone,
          isWithdrawn: row.withdrawn_at !== null,
        },
      ];
    };
    return [...on("opens", row.opens_at), ...on("due", row.due_at), ...on("closes", row.closes_at)];
  });
  return entries.sort((a, b) => a.at.localeCompare(b.at) || a.number.localeCompare(b.number));
}

const stamp = (iso: string) => iso.replace(/[-:]/g, "").replace(/\.\d+/, "");
/** Commas, semicolons, backslashes and line ends mean something in a calendar file (RFC 5545, 3.3.11). */
const escaped = (text: string) =>
  fit(text)
    .replace(/[\\;,]/g, (c) => `\\${c}`)
    .replace(/\r\n?|\n/g, "\\n");
/** Lines are folded after 75 octets, a space before what goes on. */
function folded(line: string): string {
  const bytes = new TextEncoder();
  let out = "",
    width = 0;
  for (const c of line) {
    const size = bytes.encode(c).length;
    if (width + size > 74) {
      out += "\r\n ";
      width = 1;
    }
    out += c;
    width += size;
  }
  return out;
}

/** The same as a calendar file (RFC 5545). @param address where the server is reached */
export function calendarFile(title: string, entries: readonly CalendarEntry[], address: string): string {
  const host = new URL(address).host;
  const now = stamp(new Date().toISOString());
  const lines = [
    "BEGIN:VCALENDAR",
    "VERSION:2.0",
    "PRODID:-//Rusty Caliper//Calendar//EN",
    `X-WR-CALNAME:${escaped(title)}`,
    ...entries
      .filter((e) => !e.isWithdrawn)
      .flatMap((entry) => [
        "BEGIN:VEVENT",
        `UID:${entry.handout}-${entry.what}@${host}`,
        `DTSTAMP:${now}`,
        `DTSTART:${stamp(entry.at)}`,
        `SUMMARY:${escaped(`${entry.number} ${entry.title} ${entry.what === "due" ? "is due" : entry.what}`)}`,
        `URL:${address}/handouts/${entry.handout}`,
        "END:VEVENT",
      ]),
    "END:VCALENDAR",
  ];
  return `${lines.map(folded).join("\r\n")}\r\n`;
}
