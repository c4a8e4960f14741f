"use client";

import { UndoButtons } from "../parts/undo-buttons";
import Link from "next/link";
import { useEffect, useState } from "react";
import { Group, Panel, Separator } from "react-resizable-panels";
import { calledThing } from "@/core/exercise/called";
import { Clashes } from "../parts/clashes";
import { useNews } from "../parts/follow";
import { SaveNote } from "../parts/save-note";
import { BoardTray } from "./board-tray";
import { ChosenCard } from "./chosen-card";
import { BoardPaper } from "./paper";
import { ProofPanel } from "./proof-panel";
import { SheetChoices } from "./sheet-choices";
import { createBoard, type BoardOpening, type BoardStore } from "./store";
import { BOARD_ROWS, toolEntry } from "./tools";
import { ViewList } from "./view-list";

/** The drawing board: the instructor's screen for arranging a Sheet. */
export function Board(props: BoardOpening & { heading: string; leaveTo: string }) {
  const [store, setStore] = useState<BoardStore>();
  useEffect(() => {
    const s = createBoard(props);
    setStore(() => s);
    void s.getState().open();
    return () => s.getState().close();
    // one board for as long as the page stands
  }, []);
  if (!store) return <p className="quiet p-8">Laying the Sheet out …</p>;
  return <OpenBoard store={store} id={props.id} heading={props.heading} leaveTo={props.leaveTo} />;
}

function OpenBoard(p: { store: BoardStore; id: string; heading: string; leaveTo: string }) {
  const { store, id, heading, leaveTo } = p;
  useBoardKeys(store);
  const drawn = store((s) => s.drawn);
  const isDrawing = store((s) => s.isDrawing),
    clashes = store((s) => s.clashes);
  useNews(`exercise:${id}`, () => store.getState().look());
  const texts = new Map(drawn?.sheet.dimensions.map((d) => [d.id, d.text]));
  return (
    <div className="flex h-screen flex-col overflow-hidden">
      <Clashes
        clashes={clashes}
        called={(place) => calledThing(store.getState().exercise, place, texts)}
        settle={store.getState().settle}
      />
      <BoardHeader store={store} heading={heading} leaveTo={leaveTo} />
      <Group orientation="horizontal" className="min-h-0 flex-1">
        <Panel minSize="40%" className="flex min-w-0 flex-col">
          <div className="relative min-h-0 flex-1">
            <BoardPaper store={store} />
            {!drawn && isDrawing && (
              <p className="quiet absolute inset-x-0 top-1/3 text-center">
                <span className="loading loading-dots loading-sm mr-2" />
                The views are being drawn.
              </p>
            )}
          </div>
          <div className="flex justify-center bg-base-200 px-2 py-1">
            <BoardTray store={store} />
          </div>
          <BoardHint store={store} />
        </Panel>
        <Separator className="w-1.5 bg-base-300 hover:bg-accent" aria-label="Width of the lists" />
        <Panel defaultSize="26%" minSize="17rem" collapsible className="min-w-0">
          <div className="h-full space-y-4 overflow-y-auto px-4 py-3">
            <ChosenCard store={store} />
            <ProofPanel store={store} />
            <ViewList store={store} />
            <SheetChoices store={store} />
          </div>
        </Panel>
      </Group>
    </div>
  );
}

function BoardHeader({ store, heading, leaveTo }: { store: BoardStore; heading: string; leaveTo: string }) {
  const undoes = store((s) => s.undoes),
    redoes = store((s) => s.redoes),
    saved = store((s) => s.saved);
  const { saver, undo, redo } = store.getState();
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-3.5 py-1.5">
      <Link href={leaveTo} className="text-sm text-accent hover:underline">
        Back
      </Link>
      <h1 className="font-semibold">{heading}</h1>
      <span className="quiet">Drawing board</span>
      <UndoButtons {...{ undoes, redoes, undo, redo }} />
      <SaveNote saved={saved} hurry={() => saver.hurry()} />
      <button
        className="btn btn-sm"
        title="Views, scale and places of all sizes are chosen anew; Undo brings yours back"
        onClick={() => store.getState().apply({ change: "lay-out" })}
      >
        Lay out for me
      </button>
    </header>
  );
}

/** What the tool wants next, or what just happened; of one height. */
function BoardHint({ store }: { store: BoardStore }) {
  const tool = store((s) => s.tool),
    count = store((s) => s.places.length),
    message = store((s) => s.message);
  const { label, wants } = toolEntry(tool);
  return (
    <div className="h-9 shrink-0 overflow-y-auto border-t border-base-300 px-4 py-2 text-[13px]" aria-live="polite">
      {message ? (
        <p role={message.isTrouble ? "alert" : "status"} className={message.isTrouble ? "text-error" : ""}>
          {message.text}
        </p>
      ) : (
        <p>
          {label}: {wants[Math.min(count, wants.length - 1)]}
        </p>
      )}
    </div>
  );
}

const isTyping = (e: KeyboardEvent) =>
  e.target instanceof Element && e.target.closest("input, select, textarea, [contenteditable]") !== null;

/** Keys of the board: tools by their place in the tray. */
function useBoardKeys(store: BoardStore): void {
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const s = store.getState();
      const isCommand = event.ctrlKey || event.metaKey;
      if (isTyping(event)) return;
      const act = isCommand ? commandFor(event, s) : keyFor(event.key, s);
      if (!act) return;
      event.preventDefault();
      act();
    };
    const ask = (e: BeforeUnloadEvent) => store.getState().saver.isAtRisk && e.preventDefault();
    const hurry = () => store.getState().saver.hurry();
    window.addEventListener("keydown", key);
    window.addEventListener("beforeunload", ask);
    window.addEventListener("online", hurry);
    return () => {
      window.removeEventListener("keydown", key);
      window.removeEventListener("beforeunload", ask);
      window.removeEventListener("online", hurry);
    };
  }, [store]);
}

type State = ReturnType<BoardStore["getState"]>;

function commandFor(e: KeyboardEvent, s: State): (() => void) | undefined {
  const letter = e.key.toLowerCase();
  if (letter === "y" || (letter === "z" && e.shiftKey)) return s.redo;
  return letter === "z" ? s.undo : undefined;
}

function keyFor(key: string, state: State): (() => void) | undefined {
  const tool = BOARD_ROWS.flatMap((r) => r.tools).find((t) => t.key === key.toLowerCase());
  if (tool) return () => state.take(tool.tool);
  if (key === "Enter" && state.places.length) return state.finish;
  if (key === "Escape") return () => (state.take("move"), state.choose(undefined));
  const { chosen } = state;
  if ((key !== "Delete" && key !== "Backspace") || !chosen) return undefined;
  return () => {
    if (chosen.what === "size") state.apply({ change: "drop-size", id: chosen.id });
    else if (chosen.what === "view") state.apply({ change: "drop-view", key: chosen.id });
    else state.apply({ change: "drop-remark", id: chosen.id });
    state.choose(undefined);
  };
}
