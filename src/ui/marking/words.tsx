"use client";

import { useId, useMemo, useState } from "react";
import type { DeskStore } from "./desk-store";

/** So many of one's own remarks are offered. */
const OFFERED = 5;

/** A field for a sentence or two; what one wrote on lines like it is offered, and taken by its number. */
export function Words({
  store,
  about,
  label,
  send,
  cancel,
  mayBeEmpty = false,
  isFirst = true,
}: {
  store: DeskStore;
  /** The kind of check it is about; '' for the whole. */
  about: string;
  label: string;
  send: (text: string) => void;
  cancel: () => void;
  mayBeEmpty?: boolean;
  /** Whether it has the keyboard at once. */
  isFirst?: boolean;
}) {
  const [text, setText] = useState("");
  const id = useId();
  const remarks = store((s) => s.remarks);
  const offered = useMemo(() => {
    const sought = text.trim().toLowerCase();
    const fits = remarks.filter((r) => r.about === about && r.text.toLowerCase().includes(sought) && r.text !== text);
    return fits.slice(0, OFFERED);
  }, [remarks, about, text]);
  const done = () => (text.trim() || mayBeEmpty) && send(text.trim());
  return (
    <div className="mt-1.5">
      <label htmlFor={id} className="quiet text-xs">
        {label}
      </label>
      <textarea
        id={id}
        rows={2}
        className="textarea textarea-sm w-full"
        autoFocus={isFirst}
        maxLength={1000}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape") cancel();
          const nth = event.altKey ? offered[Number(event.key) - 1] : undefined;
          if (nth) {
            event.preventDefault();
            setText(nth.text);
          }
          if (event.key !== "Enter" || event.shiftKey) return;
          event.preventDefault();
          done();
        }}
      />
      {offered.length > 0 && (
        <ul className="mt-0.5 text-xs" aria-label="Remarks of yours">
          {offered.map((remark, i) => (
            <li key={remark.text} className="flex gap-2">
              <button
                type="button"
                className="min-w-0 flex-1 cursor-pointer truncate text-left hover:underline"
                onClick={() => setText(remark.text)}
              >
                <kbd className="kbd kbd-xs">Alt {i + 1}</kbd> {remark.text}
              </button>
              <button
                type="button"
                className="cursor-pointer text-accent hover:underline"
                aria-label={`Forget: ${remark.text.slice(0, 40)}`}
                onClick={() => store.getState().forget(remark)}
              >
                forget
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-1 flex gap-2">
        <button className="btn btn-xs btn-primary" onClick={done} disabled={!text.trim() && !mayBeEmpty}>
          Keep <kbd className="kbd kbd-xs text-base-content">Enter</kbd>
        </button>
        <button className="btn btn-xs" onClick={cancel}>
          Leave <kbd className="kbd kbd-xs">Esc</kbd>
        </button>
      </div>
    </div>
  );
}
