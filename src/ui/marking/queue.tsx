"use client";

import { PartPicture } from "../parts/part-picture";
import { NEED_WORDS, FILTERS, groupOf, GROUPS, type Filter } from "./desk-order";
import { shownRows, type DeskStore } from "./desk-store";
import type { QueueRow } from "@/server/marking/desk-queue";

/** The class in the order it is worked through. */
export function Queue({ store }: { store: DeskStore }) {
  const { queue, order, filter, text, at, set, go, sortAnew } = store();
  const rows = shownRows({ queue, order, filter, text });
  const handedIn = queue.filter((r) => r.submission).length,
    done = queue.filter((r) => r.submission && (r.isAccepted || r.isReturned)).length;
  const isStale = !inGroups(rows);
  return (
    <nav aria-label="Submissions" className="flex w-62 shrink-0 flex-col border-r border-base-300">
      <div className="border-b border-base-300 px-3 py-2">
        <p className="flex items-baseline justify-between text-sm">
          <span data-testid="progress">
            <b className="figures">{done}</b> of <b className="figures">{handedIn}</b> looked at
          </span>
          {isStale && (
            <button className="cursor-pointer text-xs text-accent hover:underline" onClick={sortAnew}>
              Sort anew
            </button>
          )}
        </p>
        <progress
          className="progress mt-1 h-1.5 w-full"
          value={done}
          max={Math.max(1, handedIn)}
          aria-label="Looked at"
        />
        <div className="mt-1.5 flex gap-1.5">
          <input
            type="search"
            className="input input-xs min-w-0 flex-1"
            placeholder="Name or group"
            aria-label="Name or group"
            value={text}
            onChange={(e) => set({ text: e.target.value })}
          />
          <select
            className="select select-xs w-27"
            aria-label="Which submissions"
            value={filter}
            onChange={(e) => set({ filter: e.target.value as Filter })}
          >
            {Object.entries(FILTERS).map(([id, title]) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        </div>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto pb-4">
        {!rows.length && (
          <p className="quiet p-4 text-sm">
            {queue.length ? "Nobody is shown: choose All." : "No students are in this course yet."}
          </p>
        )}
        {rows.map((r, i) => {
          const heading = i === 0 || groupOf(rows[i - 1]!) !== groupOf(r) ? groupOf(r) : undefined;
          return (
            <div key={r.personId}>
              {heading && <h2 className="quiet px-3 pb-1 pt-3 text-xs font-semibold">{heading}</h2>}
              <Row row={r} isChosen={r.submission === at} go={go} />
            </div>
          );
        })}
      </div>
    </nav>
  );
}

/** Whether each group stands together: what was decided since may have moved somebody to another. */
function inGroups(rows: readonly QueueRow[]): boolean {
  const places = rows.map((r) => GROUPS.indexOf(groupOf(r)));
  return places.every((p, i) => i === 0 || p >= places[i - 1]!);
}

function Row({ row, isChosen, go }: { row: QueueRow; isChosen: boolean; go: (id: string) => void }) {
  const why = row.needs.map((n) => NEED_WORDS[n]).join(", ");
  if (!row.submission)
    return (
      <p className="quiet flex justify-between border-l-3 border-transparent px-3 py-1 text-sm">
        <span>{row.name}</span>
        <span className="text-xs">{row.seenAt ? "at work" : "not opened"}</span>
      </p>
    );
  const { submission } = row;
  return (
    <button
      aria-current={isChosen}
      data-submission={submission}
      className={`flex w-full cursor-pointer items-center gap-2 border-l-3 px-3 py-1 text-left text-sm
        ${isChosen ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}`}
      onClick={() => go(submission)}
    >
      <PartPicture hash={row.picture} alt="" />
      <span className="block min-w-0 flex-1">
        <span className="flex justify-between gap-2">
          <span className={`truncate ${row.isAccepted || row.isReturned ? "" : "font-semibold"}`}>
            {row.name}
            {row.isReturned && (
              <span className="quiet font-normal" aria-label="returned">
                {" "}
                ↩
              </span>
            )}
          </span>
          <span className="figures whitespace-nowrap">{row.points === null ? "–" : `${row.points} / ${row.of}`}</span>
        </span>
        <span className={`block truncate text-xs ${why ? "text-accent" : "quiet"}`}>
          {why || row.lacking || (row.isAccepted ? "looked at" : "nothing missing")}
        </span>
      </span>
    </button>
  );
}
