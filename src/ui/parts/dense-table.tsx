"use client";

import { createColumnHelper, useTable } from "@tanstack/react-table";
import { useMemo, type ReactNode } from "react";
import { features, SORTED, SORT_MARK } from "./table-features";

export interface Column<T> {
  readonly id: string;
  readonly header: string;
  /** What is sorted by and searched. */
  readonly value: (row: T) => string | number;
  /** What is shown, where that is more than the value. */
  readonly show?: (row: T) => ReactNode;
  readonly right?: boolean;
}

/** A plain, dense table: sorted by its headings, searched by a field, printed as it stands. */
export function DenseTable<T extends object>({
  label,
  rows,
  columns,
  empty,
  search,
}: {
  label: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  /** What to do first, where there is nothing. */
  empty: ReactNode;
  /** What the field for searching says; none where it is searched elsewhere. */
  search: string | undefined;
}) {
  const data = useMemo(() => [...rows], [rows]);
  const built = useMemo(() => {
    const helper = createColumnHelper<typeof features, T>();
    return helper.columns(
      columns.map((c) => helper.accessor(c.value, { id: c.id, header: c.header, sortFn: "alphanumeric" })),
    );
  }, [columns]);
  const table = useTable({ features, columns: built, data, globalFilterFn: "includesString" });
  const byId = new Map(columns.map((c) => [c.id, c]));
  const shown = table.getRowModel().rows;
  if (!rows.length) return <p className="quiet mt-2">{empty}</p>;
  return (
    <div>
      {search && rows.length > 8 && (
        <div className="no-print mb-2 flex items-center gap-3">
          <input
            type="search"
            aria-label={search}
            placeholder={search}
            className="input input-sm w-64"
            onChange={(e) => table.setGlobalFilter(e.target.value)}
          />
          <span className="quiet text-xs" role="status">
            {shown.length === rows.length ? `${rows.length} in all` : `${shown.length} of ${rows.length}`}
          </span>
        </div>
      )}
      <table className="table table-sm" aria-label={label}>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map((h) => {
                const sorted = h.column.getIsSorted();
                return (
                  <th
                    key={h.id}
                    className={byId.get(h.column.id)?.right ? "text-right" : ""}
                    aria-sort={sorted ? SORTED[sorted] : "none"}
                  >
                    <button className="cursor-pointer hover:underline" onClick={h.column.getToggleSortingHandler()}>
                      {byId.get(h.column.id)?.header}
                    </button>
                    {sorted && <span aria-hidden>{SORT_MARK[sorted]}</span>}
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {shown.slice(0, MOST_SHOWN).map((r) => (
            <tr key={r.id}>
              {columns.map((c) => (
                <td key={c.id} className={c.right ? "figures text-right" : ""}>
                  {c.show ? c.show(r.original) : c.value(r.original)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length > MOST_SHOWN && (
        <p className="quiet mt-1 text-sm">{shown.length - MOST_SHOWN} more: search for whom you want.</p>
      )}
    </div>
  );
}

/** Nobody reads further; whoever is wanted is searched for. */
const MOST_SHOWN = 200;
