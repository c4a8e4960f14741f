"use client";

import { useState } from "react";

export interface OpenedHints {
  readonly opened: readonly string[];
  readonly of: number;
}

/** What the instructor wrote for whoever is stuck: opened one by one, and noted with what is handed in. */
export function Hints({ first, url, owner }: { first: OpenedHints; url: string; owner: string }) {
  const [hints, setHints] = useState(first),
    [busy, setBusy] = useState(false),
    [trouble, setTrouble] = useState("");
  if (!hints.of) return null;
  const next = hints.opened.length + 1;
  const open = async () => {
    setBusy(true);
    try {
      const r = await fetch(url, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ nth: next, owner }),
        signal: AbortSignal.timeout(15_000),
      });
      const answer = (await r.json()) as Partial<OpenedHints> & { sentence?: string };
      setTrouble(r.ok ? "" : (answer.sentence ?? "The hint could not be opened."));
      if (r.ok && answer.opened) setHints({ opened: answer.opened, of: answer.of ?? hints.of });
    } catch {
      setTrouble("No connection to the server. Try once more.");
    }
    setBusy(false);
  };
  return (
    <section aria-label="Hints" className="border-t border-base-300 px-3.5 py-3">
      <h2 className="quiet flex justify-between pb-1 text-xs font-semibold">
        Hints
        <span className="font-normal">
          {hints.opened.length} of {hints.of} open
        </span>
      </h2>
      <ol className="list-decimal space-y-1 pl-5 text-sm">
        {hints.opened.map((h) => (
          <li key={h}>{h}</li>
        ))}
      </ol>
      {hints.opened.length < hints.of && (
        <button className="btn btn-xs mt-1" disabled={busy} onClick={() => void open()}>
          Open hint {next}
        </button>
      )}
      {hints.opened.length < hints.of && (
        <p className="quiet mt-1 text-xs">Your instructor sees how many you opened.</p>
      )}
      {trouble && (
        <p role="alert" className="text-xs text-error">
          {trouble}
        </p>
      )}
    </section>
  );
}
