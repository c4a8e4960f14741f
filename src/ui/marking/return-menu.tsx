"use client";

import { useState } from "react";
import { fetchQueue } from "./desk-data";
import type { DeskStore, Item } from "./desk-store";

/** Gives back this one, those that are checked with nothing open, or all. */
export function ReturnMenu({ store, item }: { store: DeskStore; item: Item }) {
  const { queue, handout } = store();
  const [isOpen, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const clear = queue.filter((r) => r.state === "checked" && !r.isReturned && !r.needs.length).length,
    all = queue.filter((r) => r.state === "checked" && !r.isReturned).length;
  const hold = (which: "clear" | "all", count: number) => {
    setOpen(false);
    store.getState().holding.hold(`${count} returned`, () => void give(which));
  };
  const give = async (which: "clear" | "all") => {
    setBusy(true);
    try {
      const r = await fetch(`/api/handouts/${handout.id}/return`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ which }),
        keepalive: true,
      });
      const answer = (await r.json()) as { sentence?: string; returned?: number };
      const note = r.ok ? `${answer.returned} returned.` : answer.sentence;
      store.getState().set({ note });
      store.getState().take(await fetchQueue(handout.id));
    } catch {
      store
        .getState()
        .set({ note: "There is no connection to the server. Nothing was returned that is not shown so." });
    }
    setBusy(false);
  };
  return (
    <div className="relative flex">
      <button
        className="btn btn-sm btn-primary"
        disabled={!item.desk.grade}
        onClick={() => store.getState().giveBack()}
      >
        Return this one <kbd className="kbd kbd-xs text-base-content">R</kbd>
      </button>
      <button
        className="btn btn-sm btn-primary ml-px px-2"
        aria-label="Return several"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        ▾
      </button>
      {isOpen && (
        <div className="absolute right-0 top-9 z-30 w-72 border border-base-300 bg-base-100 p-2 shadow">
          <button
            className="btn btn-sm mb-1 w-full justify-start"
            disabled={busy || !clear}
            onClick={() => hold("clear", clear)}
          >
            Return {clear} with nothing open
          </button>
          <button className="btn btn-sm w-full justify-start" disabled={busy || !all} onClick={() => hold("all", all)}>
            Return all {all} that are checked
          </button>
        </div>
      )}
    </div>
  );
}
