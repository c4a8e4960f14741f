"use client";

import { createColumnHelper, useTable } from "@tanstack/react-table";
import Link from "next/link";
import { memo, useMemo, useState } from "react";
import type { CellState, Gradebook, GradebookCell, GradebookStudent } from "@/server/marking/gradebook";
import { Cells } from "./gradebook-cells";
import { PageFrame } from "../parts/page-frame";
import { features, SORTED, SORT_MARK } from "../parts/table-features";

/** Each state by a sign of its own, not by colour alone. */
const SIGNS: Record<CellState, string> = {
  returned: "↩",
  "looked at": "✓",
  checked: "·",
  "needs you": "!",
  "being checked": "…",
  "at work": "✎",
  "not opened": "",
  missing: "∅",
};

const URGENT: ReadonlySet<CellState> = new Set(["needs you", "missing"]);

const helper = createColumnHelper<typeof features, GradebookStudent>();
/** A handout that is not for a student comes last. */
const sortable = (c: GradebookCell | undefined) => (c ? pointsOf(c) : -3);
const pointsOf = (c: GradebookCell) => c.points ?? (c.state === "missing" ? -1 : -2);

/** Students against handouts, to be sorted and searched, with columns that can be left out. */
function useGradebook(book: Gradebook) {
  const columns = useMemo(
    () =>
      helper.columns([
        helper.accessor((s) => s.name, { id: "name", header: "Student", sortFn: "alphanumeric" }),
        helper.accessor((s) => s.group ?? "", { id: "group", header: "Group", sortFn: "alphanumeric" }),
        ...book.handouts.map((h) =>
          helper.accessor((s) => sortable(s.cells[h.id]), {
            id: h.id,
            header: h.number || h.title,
            sortFn: "basic",
            enableGlobalFilter: false,
          }),
        ),
        helper.accessor((s) => s.average ?? -1, {
          id: "average",
          header: "Average",
          sortFn: "basic",
          enableGlobalFilter: false,
        }),
      ]),
    [book],
  );
  const data = useMemo(() => [...book.students], [book]);
  const hasGroups = book.students.some((s) => s.group);
  return useTable({
    features,
    columns,
    data,
    globalFilterFn: "includesString",
    initialState: { columnVisibility: { group: hasGroups } },
  });
}
type Table = ReturnType<typeof useGradebook>;
type Handouts = ReadonlyMap<string, Gradebook["handouts"][number]>;

/** Students against handouts. */
export function GradebookPage({
  person,
  course,
  book,
}: {
  person: { name: string };
  course: { id: string; title: string; term: string };
  book: Gradebook;
}) {
  const hasStudents = book.students.length > 0;
  return (
    <PageFrame person={person} trail={[]}>
      <h1 className="text-xl font-semibold">
        Gradebook{" "}
        <span className="quiet text-base font-normal">{[course.title, course.term].filter(Boolean).join(", ")}</span>
      </h1>
      {!hasStudents && (
        <p className="mt-4">
          No students are in this course yet.{" "}
          <Link className="text-accent underline" href={`/courses/${course.id}/people`}>
            Add people
          </Link>{" "}
          first.
        </p>
      )}
      {hasStudents && !book.handouts.length && (
        <p className="mt-4">No handouts have been issued yet. Each becomes a column here.</p>
      )}
      {hasStudents && book.handouts.length > 0 && <Book book={book} course={course.id} />}
    </PageFrame>
  );
}

function Book({ book, course }: { book: Gradebook; course: string }) {
  const table = useGradebook(book);
  const [isChoosing, setChoosing] = useState(false);
  const shown = table.getRowModel().rows;
  const visible = table.getVisibleLeafColumns();
  const byId: Handouts = useMemo(() => new Map(book.handouts.map((h) => [h.id, h])), [book]);
  const files = `/api/courses/${course}/gradebook`;
  return (
    <>
      <div className="no-print mt-3 flex flex-wrap items-center gap-3">
        <input
          type="search"
          className="input input-sm w-56"
          aria-label="Find a student or group"
          placeholder="Find a student or group"
          onChange={(e) => table.setGlobalFilter(e.target.value)}
        />
        <button className="btn btn-sm" aria-expanded={isChoosing} onClick={() => setChoosing(!isChoosing)}>
          Columns
        </button>
        <span className="quiet text-sm" role="status">
          {shown.length} of {book.students.length} students
        </span>
        <span className="ml-auto flex gap-2">
          <a className="btn btn-sm" href={`${files}?as=csv`}>
            CSV
          </a>
          <a className="btn btn-sm" href={`${files}?as=json`}>
            JSON
          </a>
          <a className="btn btn-sm" href={`${files}?as=pdf`}>
            PDF
          </a>
          <button className="btn btn-sm" onClick={() => window.print()}>
            Print
          </button>
        </span>
      </div>
      {isChoosing && <ColumnChoice table={table} handouts={byId} />}
      <Cells>
        <table className="gradebook table table-xs table-fixed" aria-label="Gradebook">
          <colgroup>
            {visible.map((c) => (
              <col key={c.id} style={{ width: WIDTHS[c.id] ?? HANDOUT_WIDTH }} />
            ))}
          </colgroup>
          <thead>
            <HeadRow table={table} handouts={byId} />
          </thead>
          <tbody>
            {shown.map((r, place) => (
              <StudentRow
                // what stands in a row changes, not the row: moved rows are styled anew, cell by cell
                key={place}
                student={r.original}
                columns={visible.map((c) => c.id).join(",")}
                course={course}
              />
            ))}
          </tbody>
        </table>
      </Cells>
      <p className="quiet mt-3 text-xs">
        {Object.entries(SIGNS)
          .filter(([, sign]) => sign)
          .map(([state, sign]) => `${sign} ${state}`)
          .join("   ")}
        . Missing work counts as nothing, open work not yet. Arrow keys go from cell to cell, Enter opens one.
      </p>
    </>
  );
}

/** Which columns are shown; the names always are. */
function ColumnChoice({ table, handouts }: { table: Table; handouts: Handouts }) {
  return (
    <fieldset className="no-print mt-2 flex flex-wrap gap-x-5 gap-y-1 border border-base-300 p-3 text-sm">
      <legend className="quiet px-1 text-xs">Columns</legend>
      {table.getAllLeafColumns().map((c) => {
        if (c.id === "name") return null;
        const handout = handouts.get(c.id);
        return (
          <label key={c.id} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={c.getIsVisible()}
              onChange={c.getToggleVisibilityHandler()}
            />
            {handout ? `${handout.number} ${handout.title}` : String(c.columnDef.header)}
          </label>
        );
      })}
    </fieldset>
  );
}

function HeadRow({ table, handouts }: { table: Table; handouts: Handouts }) {
  return (
    <tr>
      {table.getHeaderGroups()[0]!.headers.map((head) => {
        const sorted = head.column.getIsSorted();
        const h = handouts.get(head.column.id);
        return (
          <th
            key={head.id}
            aria-sort={sorted ? SORTED[sorted] : "none"}
            className={head.column.id === "name" || head.column.id === "group" ? "" : "text-right"}
          >
            <button
              className="cursor-pointer whitespace-nowrap hover:underline"
              title={h && `${h.title}, of ${h.of}, weight ${h.weight}`}
              onClick={head.column.getToggleSortingHandler()}
            >
              {String(head.column.columnDef.header)}
              {sorted && SORT_MARK[sorted]}
            </button>
            {h && <span className="quiet block font-normal">/ {h.of}</span>}
          </th>
        );
      })}
    </tr>
  );
}

/** Columns are as wide as they are, whatever stands in them: nothing is laid out anew when rows change places. */
const WIDTHS: Record<string, number> = { name: 170, group: 90, average: 92 };
const HANDOUT_WIDTH = 78;

/** One student's row; drawn anew only when it or the columns change. */
const StudentRow = memo(function StudentRow({
  student,
  columns,
  course,
}: {
  student: GradebookStudent;
  columns: string;
  course: string;
}) {
  return (
    <tr>
      {columns.split(",").map((id) => {
        if (id === "name")
          return (
            <th key={id} scope="row" className="truncate font-medium">
              <a
                className="hover:underline"
                href={`/api/courses/${course}/gradebook?as=pdf&student=${student.id}`}
                title="Results as PDF"
                data-cell
                tabIndex={-1}
              >
                {student.name}
              </a>
            </th>
          );
        if (id === "group")
          return (
            <td key={id} className="figures text-left">
              {student.group}
            </td>
          );
        if (id === "average")
          return (
            <td key={id} className="figures text-right font-semibold">
              {student.average === null ? "–" : `${(student.average * 100).toFixed(1)} %`}
            </td>
          );
        const cell = student.cells[id];
        if (!cell) return <td key={id} aria-label="not for this student" className="quiet" />;
        return (
          <td key={id} className={URGENT.has(cell.state) ? "urgent" : undefined}>
            <CellMark cell={cell} />
          </td>
        );
      })}
    </tr>
  );
});

/** One text a cell: six hundred of them are drawn anew when rows change places. */
function CellMark({ cell }: { cell: GradebookCell }) {
  const text = `${cell.points ?? "–"}${cell.isLate ? "ᴸ" : ""} ${SIGNS[cell.state] || " "}`;
  const label = `${cell.points ?? "no points"}, ${cell.state}${cell.isLate ? ", late" : ""}`;
  if (!cell.submission)
    return (
      <span aria-label={label} role="img">
        {text}
      </span>
    );
  return (
    <a
      href={`/submissions/${cell.submission}`}
      title={cell.state}
      aria-label={label}
      data-cell
      data-picture={cell.picture ?? undefined}
      tabIndex={-1}
    >
      {text}
    </a>
  );
}
