"use client";

import { Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import type { usePanelRef } from "react-resizable-panels";
import { LocalTime } from "../parts/local-time";
import type { BenchProps } from "./bench";
import { HandIn } from "./hand-in";
import type { BenchStore } from "./store";

/** A pane that folds away, and what it is called. */
type Pane = readonly [name: string, pane: ReturnType<typeof usePanelRef>];

export function BenchHeader({
  store,
  heading,
  detail,
  dueAt,
  handIn,
  lastSubmission,
  leaveTo,
  sheet,
  panes,
}: BenchProps & { store: BenchStore; panes: readonly Pane[] }) {
  const saved = store((s) => s.saved);
  const history = store((s) => s.history);
  const state =
    saved.kind === "saved"
      ? `All changes kept${saved.at ? ` · ${saved.at}` : ""}`
      : saved.kind === "saving"
        ? "Saving …"
        : saved.sentence;
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-3.5 py-1.5">
      <Link href={leaveTo ?? "/courses"} className="text-sm text-accent hover:underline">
        Back
      </Link>
      <h1 className="font-semibold">{heading}</h1>
      <span className="quiet">
        {detail}
        {dueAt && (
          <>
            {" "}
            · due <LocalTime iso={dueAt} />
          </>
        )}
      </span>
      <button
        className="btn btn-ghost btn-xs ml-2"
        title="Undo (Ctrl Z)"
        aria-label="Undo"
        disabled={!history.past.length}
        onClick={() => store.getState().undo()}
      >
        <Undo2 size={15} aria-hidden />
      </button>
      <button
        className="btn btn-ghost btn-xs"
        title="Redo (Ctrl Y)"
        aria-label="Redo"
        disabled={!history.future.length}
        onClick={() => store.getState().redo()}
      >
        <Redo2 size={15} aria-hidden />
      </button>
      {panes.map(([name, pane]) => (
        <button
          key={name}
          className="btn btn-ghost btn-xs"
          title={`Fold the ${name} away, or unfold them`}
          onClick={() => (pane.current?.isCollapsed() ? pane.current.resize("46%") : pane.current?.collapse())}
        >
          {name}
        </button>
      ))}
      <span
        role="status"
        className={`ml-auto text-sm ${saved.kind === "waiting" || saved.kind === "stopped" ? "text-error" : "quiet"}`}
      >
        {state}
      </span>
      {saved.kind === "stopped" && (
        <button className="btn btn-xs" onClick={() => window.location.reload()}>
          Reload
        </button>
      )}
      {lastSubmission && (
        <Link className="btn btn-sm" href={`/submissions/${lastSubmission}`}>
          Last result
        </Link>
      )}
      {handIn && <HandIn store={store} to={handIn} sheet={sheet} />}
      {leaveTo && (
        <Link className="btn btn-primary btn-sm" href={leaveTo}>
          To the exercise
        </Link>
      )}
    </header>
  );
}
