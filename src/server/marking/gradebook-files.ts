import Papa from "papaparse";
import type { Gradebook, GradebookCell } from "./gradebook";

/** A text that a table program would take for a formula is made plain text; a number stays one, also below nought. */
const plain = (cell: string | number): string | number =>
  typeof cell === "string" && /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;

/** Points and state of a cell; of a handout that is not for them, nothing. */
const pairOf = (c: GradebookCell | undefined): [string | number, string] =>
  c ? [c.points ?? "", c.isLate ? `${c.state}, late` : c.state] : ["", ""];

const MARK = "\uFEFF";

/**
 * The gradebook as comma separated values: UTF-8 with its mark, so that names survive; quotes doubled, and no cell that
 * could run as a formula.
 */
export function gradebookCsv(book: Gradebook): string {
  const head = [
    "Student",
    "Email",
    "Group",
    ...book.handouts.flatMap((h) => {
      const name = `${h.number} ${h.title}`.trim();
      return [`${name} (of ${h.of})`, `${name}: state`];
    }),
    "Average (%)",
  ];
  const rows = book.students.map((s) => [
    s.name,
    s.email,
    s.group ?? "",
    ...book.handouts.flatMap((h) => pairOf(s.cells[h.id])),
    s.average === null ? "" : (s.average * 100).toFixed(1),
  ]);
  const cells = [head, ...rows].map((r) => r.map(plain));
  return MARK + Papa.unparse(cells, { newline: "\r\n" });
}

/** The same as JSON, with points as numbers. */
export const gradebookJson = (course: string, book: Gradebook) => ({
  course,
  handouts: book.handouts,
  students: book.students.map(({ name, email, group, average, cells }) => ({
    name,
    email,
    group,
    average,
    results: book.handouts.flatMap((h) => {
      const cell = cells[h.id];
      if (!cell) return [];
      const { handout, state, points, of, attempts, isLate } = cell;
      return [{ handout, state, points, of, attempts, isLate }];
    }),
  })),
});
