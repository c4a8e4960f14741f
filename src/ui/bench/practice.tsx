"use client";

import { useEffect, useRef, useState } from "react";
import type { ShownLine } from "@/core/grade/shows";
import type { Practising } from "@/server/works/practices";
import { Sign } from "../marking/standing";
import type { BenchStore } from "./store";

/** It is looked again so often while a check is under way. */
const LOOK_MS = 900;
const PATIENCE_MS = 15_000;

/** The check before handing in: a button, and what it found as far as the handout tells it. */
export function PracticeCheck({ store, url, start }: { store: BenchStore; url: string; start: Practising }) {
  const [standing, setStanding] = useState(start);
  const [isOpen, setOpen] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const [isAsking, setAsking] = useState(false);
  const id = useRef<string>(undefined);
  const { last, left } = standing;
  const isBusy = last?.state === "queued" || last?.state === "checking";
  useEffect(() => {
    if (!isBusy) return;
    const look = async () => {
      try {
        const r = await fetch(url, { cache: "no-store", signal: AbortSignal.timeout(PATIENCE_MS) });
        if (r.ok) setStanding((await r.json()) as Practising);
      } catch {
        // asked again in a moment
      }
    };
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => clearInterval(timer);
  }, [isBusy, url]);
  const check = async () => {
    setOpen(true);
    setAsking(true);
    setTrouble(undefined);
    id.current ??= crypto.randomUUID();
    try {
      const { settled, owner } = store.getState();
      await Promise.race([settled(), new Promise((r) => setTimeout(r, PATIENCE_MS))]);
      const { saver } = store.getState();
      const r = await fetch(url, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ id: id.current, version: saver.version, owner }),
        signal: AbortSignal.timeout(PATIENCE_MS),
      });
      const answer = (await r.json()) as Practising & { sentence?: string };
      if (r.ok) setStanding(answer);
      else setTrouble(answer.sentence);
      // answered, the next one is another
      id.current = undefined;
    } catch {
      setTrouble("There is no connection to the server. Try again in a moment.");
    }
    setAsking(false);
  };
  const isUsedUp = left === 0 && !isBusy;
  return (
    <div className="relative">
      <button
        className="btn btn-sm"
        disabled={isBusy || isAsking}
        onClick={() => (isUsedUp ? setOpen(!isOpen) : void check())}
        title="Checks the part as it stands; nothing is handed in"
      >
        Check first{left !== null && ` (${left} left)`}
      </button>
      {isOpen && (
        <section
          className="fixed right-[23%] top-12 z-40 max-h-[70vh] w-96 overflow-y-auto border border-base-300 bg-base-100
            p-4 shadow"
          aria-label="Check before handing in"
          data-overlay
        >
          <p className="flex items-baseline justify-between">
            <b>Checked before handing in</b>
            <button className="btn btn-ghost btn-xs" onClick={() => setOpen(false)}>
              Close
            </button>
          </p>
          {trouble && <p role="alert">{trouble}</p>}
          {isBusy && (
            <p role="status" className="quiet">
              <span className="loading loading-dots loading-xs mr-1" />
              {last.progress || "waiting"}
            </p>
          )}
          {last?.state === "failed" && <p role="alert">{last.trouble}</p>}
          {last?.mark && !isBusy && <Found mark={last.mark} isOld={store.getState().saver.version !== last.version} />}
          {!last && !trouble && <p className="quiet">Nothing was checked yet.</p>}
        </section>
      )}
    </div>
  );
}

function Found({ mark, isOld }: { mark: NonNullable<NonNullable<Practising["last"]>["mark"]>; isOld: boolean }) {
  // what a person marks is neither met nor missed yet
  const judged = mark.lines.filter((l) => l.check !== "hand");
  const missed = judged.filter((l) => l.verdict !== "met").length;
  return (
    <>
      {isOld && <p className="text-sm text-accent">Of before your last change.</p>}
      <p className="mt-1" data-testid="practice">
        {mark.points !== undefined && (
          <span className="figures mr-2 text-lg">
            {mark.points} / {mark.of}
          </span>
        )}
        {missed ? `${missed} of ${judged.length} lines are not met yet.` : "Every line that the program checks is met."}
      </p>
      <ul className="mt-1 divide-y divide-base-300 text-sm">
        {mark.lines.map((l) => (
          <FoundLine key={l.id} line={l} />
        ))}
      </ul>
    </>
  );
}

/** Points of a line; one that a person marks is open. */
function FoundPoints({ line: { check, points, of } }: { line: ShownLine }) {
  if (check === "hand")
    return <span className="quiet font-normal">{of === undefined ? "open" : `open, of ${of}`}</span>;
  if (points === undefined) return null;
  return (
    <span className="figures font-normal">
      {points} / {of}
    </span>
  );
}

function FoundLine({ line }: { line: ShownLine }) {
  return (
    <li className="flex gap-2 py-1.5" data-line={line.id}>
      {line.verdict && line.check !== "hand" && <Sign verdict={line.verdict} />}
      <div className="min-w-0 flex-1">
        <p className="flex justify-between font-semibold">
          {line.title}
          <FoundPoints line={line} />
        </p>
        {line.sentence && line.verdict !== "met" && <p className="quiet">{line.sentence}</p>}
      </div>
    </li>
  );
}
