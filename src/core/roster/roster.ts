import { z } from "zod";

/** One person of a roster as they come into a course. */
export interface RosterLine {
  readonly name: string;
  readonly email: string;
  readonly role: "instructor" | "assistant" | "student";
  readonly group?: string | undefined;
}
/** A row that cannot be taken, and why. `row` counts as the person sees it, the heading being row 1. */
interface RosterFault {
  readonly row: number;
  readonly sentence: string;
}
export interface Roster {
  readonly lines: readonly RosterLine[];
  readonly faults: readonly RosterFault[];
}

/** What taking a roster in would do. */
export interface RosterPreview {
  readonly sentence?: string;
  readonly roster?: Roster;
  /** Who of them is here already, and who is in the course. */
  readonly known?: readonly { readonly email: string; readonly name: string; readonly in_course: boolean }[];
}

/** What people write over their columns. */
const HEADINGS: Record<"name" | "first" | "last" | "email" | "role" | "group", readonly string[]> = {
  name: ["name", "full name", "student", "student name"],
  first: ["first name", "given name", "forename", "first"],
  last: ["last name", "surname", "family name", "last"],
  email: ["email", "e-mail", "mail", "email address", "e-mail address"],
  role: ["role", "as"],
  group: ["group", "class", "section", "set"],
};
type Column = keyof typeof HEADINGS;
const ROLES = ["student", "assistant", "instructor"] as const;
const MOST_ROWS = 2_000;
const LONGEST = { name: 120, group: 60 } as const;

const plain = (text: string) => text.trim().replace(/\s+/g, " ");

/** Which column holds what, by the headings; undefined where name or address are missing. */
function columnsOf(heading: readonly string[]): Partial<Record<Column, number>> | undefined {
  const found: Partial<Record<Column, number>> = {};
  heading.forEach((text, i) => {
    const said = plain(text).toLowerCase().replace(/[:*]$/, "");
    for (const column of Object.keys(HEADINGS) as Column[]) if (HEADINGS[column].includes(said)) found[column] ??= i;
  });
  const hasName = found.name !== undefined || (found.first !== undefined && found.last !== undefined);
  return hasName && found.email !== undefined ? found : undefined;
}

/**
 * Reads a roster from the cells of a table, its first row the headings. Every row that cannot be taken is told with its
 * number; an address that comes twice counts once and is told.
 */
export function readRoster(cells: readonly (readonly string[])[]): Roster {
  const rows = cells.map((r) => r.map(String));
  const columns = columnsOf(rows[0] ?? []);
  const stop = (sentence: string): Roster => ({ lines: [], faults: [{ row: 1, sentence }] });
  if (!columns) return stop("The first row must name the columns: a name (or first name and last name) and an email.");
  if (rows.length - 1 > MOST_ROWS) return stop(`At most ${MOST_ROWS} rows are taken at once.`);
  const lines: RosterLine[] = [],
    faults: RosterFault[] = [],
    firstAt = new Map<string, number>();
  rows.slice(1).forEach((cell, i) => {
    const row = i + 2;
    const at = (c: Column) => plain(cell[columns[c] ?? -1] ?? "");
    const name = at("name") || plain(`${at("first")} ${at("last")}`),
      email = at("email").toLowerCase(),
      role = at("role").toLowerCase() || "student",
      group = at("group");
    if (!name && !email) return;
    const fault = faultOf(name, email, role, group, firstAt.get(email));
    if (fault) return void faults.push({ row, sentence: fault });
    firstAt.set(email, row);
    lines.push({ name, email, role: role as RosterLine["role"], ...(group && { group }) });
  });
  if (!lines.length && !faults.length) return stop("There is nobody below the headings.");
  return { lines, faults };
}

function faultOf(
  name: string,
  email: string,
  role: string,
  group: string,
  earlier: number | undefined,
): string | undefined {
  if (!name) return `${email} has no name.`;
  if (!email) return `${name} has no email address.`;
  if (name.length > LONGEST.name) return "The name is longer than 120 characters.";
  if (!z.email().max(200).safeParse(email).success) return `“${email}” is no email address.`;
  if (!(ROLES as readonly string[]).includes(role)) return `“${role}” is no role: student, assistant or instructor.`;
  if (group.length > LONGEST.group) return "The name of the group is longer than 60 characters.";
  return earlier ? `${email} stands in row ${earlier} already.` : undefined;
}
