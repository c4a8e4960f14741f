"use client";

import { LocalTime } from "../parts/local-time";
import type { DeskStore, Item } from "./desk-store";
import { Words } from "./words";

/** What was said with the student about this submission. */
export function Talk({ store, item }: { store: DeskStore; item: Item }) {
  const { writing, set, decide } = store();
  const { talk, turn } = item.decided;
  const isAnswer = turn === "instructor";
  const isWriting = writing?.kind === "ask" || writing?.kind === "answer";
  const send = (text: string) => {
    decide({ do: writing?.kind === "answer" ? "answer" : "ask", text });
    set({ writing: undefined });
  };
  return (
    <section className="border-t border-base-300 px-3.5 py-2.5" aria-label="Questions">
      <p className="flex items-center justify-between text-xs font-semibold">
        <span className="quiet">Questions</span>
        <button className="btn btn-xs" onClick={() => set({ writing: { kind: isAnswer ? "answer" : "ask" } })}>
          {isAnswer ? "Answer" : "Ask back"} <kbd className="kbd kbd-xs">Q</kbd>
        </button>
      </p>
      <ol className="text-sm">
        {talk.map((said) => (
          <li
            key={said.id}
            className={`mt-1 border-l-2 pl-2 ${said.from === "student" ? "border-accent" : "border-primary"}`}
          >
            <span className="quiet text-xs">
              {said.by}, <LocalTime iso={said.at} short />
              {said.attempt !== undefined && `, on try ${said.attempt}`}
            </span>
            <p className="whitespace-pre-wrap">{said.text}</p>
          </li>
        ))}
      </ol>
      {turn === "student" && <p className="quiet mt-1 text-xs">Waits for {item.desk.person}.</p>}
      {isAnswer && !isWriting && (
        <p className="mt-1 flex gap-3 text-xs">
          <span className="text-accent">Waits for you.</span>
          <button
            className="cursor-pointer text-accent hover:underline"
            onClick={() => set({ writing: { kind: "ask" } })}
          >
            Ask further
          </button>
          <button className="cursor-pointer text-accent hover:underline" onClick={() => decide({ do: "settle" })}>
            Nothing more to say
          </button>
        </p>
      )}
      {isWriting && (
        <Words
          store={store}
          about="talk"
          label={writing.kind === "ask" ? "A question back: it returns to you when it is answered" : "Your answer"}
          send={send}
          cancel={() => set({ writing: undefined })}
        />
      )}
    </section>
  );
}
