"use client";

import { UndoButtons } from "../parts/undo-buttons";
import Link from "next/link";
import type { usePanelRef } from "react-resizable-panels";
import { TimeLeft } from "../parts/time-left";
import type { AnswersStore } from "./answers";
import type { BenchProps } from "./props";
import { HandIn } from "./hand-in";
import { PracticeCheck } from "./practice";
import { AT_RISK, Kept } from "./kept";
import type { BenchStore } from "./store";

/** A pane that folds away, and what it is called. */
type Pane = readonly [name: string, pane: ReturnType<typeof usePanelRef>];

export function BenchHeader({
  store,
  heading,
  detail,
  due,
  handIn,
  practice,
  accepts = ["part"],
  figures,
  answers,
  lastSubmission,
  tries = { used: 0, most: null },
  leaveTo,
  history,
  sheet,
  panes,
}: BenchProps & { store: BenchStore; answers: AnswersStore; panes: readonly Pane[] }) {
  const canUndo = store((s) => (s.mode.kind === "step" ? s.mode : s.history).past.length > 0),
    canRedo = store((s) => (s.mode.kind === "step" ? s.mode : s.history).future.length > 0);
  return (
    <header
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-3.5 py-1.5
        min-[960px]:flex-nowrap"
    >
      <Link
        href={leaveTo ?? "/courses"}
        className="text-sm text-accent hover:underline"
        onClick={(e) => store.getState().saver.isAtRisk && !window.confirm(AT_RISK) && e.preventDefault()}
      >
        Back
      </Link>
      <h1 className="max-w-[22rem] shrink-0 truncate font-semibold">{heading}</h1>
      <span className="quiet min-w-0 flex-1 truncate">
        {detail}
        {due && (
          <>
            {" · "}
            <TimeLeft {...due} />
          </>
        )}
      </span>
      <UndoButtons
        undoes={canUndo}
        redoes={canRedo}
        undo={() => store.getState().undo()}
        redo={() => store.getState().redo()}
      />
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
      {history && (
        <button className="btn btn-ghost btn-xs" onClick={() => store.getState().openPanel("history")}>
          History
        </button>
      )}
      <Kept store={store} />
      {lastSubmission && (
        <Link className="btn btn-sm" href={`/submissions/${lastSubmission}`}>
          Last result
        </Link>
      )}
      {practice && <PracticeCheck store={store} url={practice.url} start={practice.start} />}
      {handIn && <HandIn {...{ store, sheet, accepts, answers, tries }} to={handIn} figures={figures} />}
      {leaveTo && (
        <Link className="btn btn-primary btn-sm" href={leaveTo}>
          To the exercise
        </Link>
      )}
    </header>
  );
}
