"use client";

import { useState, useTransition } from "react";
import type { Answer } from "../parts/zod-form";

interface Thing {
  readonly id: string;
  readonly name: string;
}

/** Takes a person or a course away for good: chosen from a list, and its name typed to be sure. */
export function TakeAway({
  what,
  things,
  stays,
  dataOf,
  act,
}: {
  /** "a person", "a course". */
  what: string;
  things: readonly Thing[];
  /** What goes and what stays, in a sentence. */
  stays: string;
  /** Where everything that is kept of one can be had first. */
  dataOf?: (id: string) => string;
  act: (values: unknown) => Promise<Answer>;
}) {
  const [id, setId] = useState("");
  const [typed, setTyped] = useState("");
  const [said, setSaid] = useState<Answer>({});
  const [busy, start] = useTransition();
  const chosen = things.find((t) => t.id === id);
  const send = () =>
    start(async () => {
      const answer = await act({ id, name: chosen?.name ?? "", typed });
      setSaid(answer);
      if (answer.done) {
        setId("");
        setTyped("");
      }
    });
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-sm text-accent">Take {what} away</summary>
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        aria-label={`Take ${what} away`}
        onSubmit={(e) => {
          e.preventDefault();
          send();
        }}
      >
        <p className="quiet w-full text-sm">{stays}</p>
        <select
          className="select select-sm w-64"
          aria-label={`Which: ${what}`}
          value={id}
          onChange={(e) => setId(e.target.value)}
        >
          <option value="">choose {what} …</option>
          {things.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </select>
        {chosen && (
          <>
            <label>
              <span className="quiet block text-xs">Type “{chosen.name}” to be sure</span>
              <input className="input input-sm w-64" value={typed} onChange={(e) => setTyped(e.target.value)} />
            </label>
            <button className="btn btn-sm" disabled={busy || typed.trim() !== chosen.name}>
              Take away for good
            </button>
            {dataOf && (
              <a className="text-sm text-accent underline" href={dataOf(id)} download>
                Everything kept of them, as one file
              </a>
            )}
          </>
        )}
        {(said.sentence ?? said.done) && (
          <p role="status" className={`w-full ${said.sentence ? "text-error" : "quiet"}`}>
            {said.sentence ?? said.done}
          </p>
        )}
      </form>
    </details>
  );
}
