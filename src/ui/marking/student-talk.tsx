"use client";

import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { StudentView } from "@/server/marking/results";
import { LocalTime } from "../parts/local-time";

/** Questions and answers about a result. */
export function StudentTalk({
  submission,
  talk,
  turn,
  isOver,
}: {
  submission: string;
  talk: StudentView["talk"];
  turn: StudentView["turn"];
  /** What was said can be read, and nothing is added. */
  isOver: boolean;
}) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string>();
  const [busy, setBusy] = useState(false);
  // sent again after a lost answer it is still the same word
  const id = useRef<string>(undefined);
  const send = async () => {
    id.current ??= crypto.randomUUID();
    setBusy(true);
    setTrouble(undefined);
    try {
      const r = await fetch(`/api/submissions/${submission}/words`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ id: id.current, what: { do: "say", text: text.trim() } }),
        signal: AbortSignal.timeout(15_000),
      });
      if (!r.ok) throw new Error(((await r.json()) as { sentence?: string }).sentence);
      id.current = undefined;
      setText("");
      router.refresh();
    } catch (e) {
      const said = e instanceof Error && e.name === "Error" ? e.message : "";
      setTrouble(said || "It could not be sent: no connection. What you wrote stays here; send it again.");
    }
    setBusy(false);
  };
  const isAsked = turn === "student";
  return (
    <section className="mt-8 max-w-2xl" aria-label="Questions">
      <h2 className="font-semibold">{isAsked ? "Your instructor asks" : "Questions to your instructor"}</h2>
      <ol>
        {talk.map((t) => (
          <li
            key={t.id}
            className={`mt-2 border-l-3 pl-3 ${t.from === "student" ? "border-base-300" : "border-primary"}`}
          >
            <span className="quiet text-xs">
              {t.from === "student" ? "you" : t.by}, <LocalTime iso={t.at} />
              {t.attempt !== undefined && `, on try ${t.attempt}`}
            </span>
            <p className="whitespace-pre-wrap">{t.text}</p>
          </li>
        ))}
      </ol>
      {!isOver && (
        <>
          <label className="mt-2 block">
            <span className="quiet text-sm">{isAsked ? "Your answer" : "Ask about this result"}</span>
            <textarea
              className="textarea w-full"
              rows={2}
              maxLength={2000}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          {trouble && (
            <p role="alert" className="text-error">
              {trouble}
            </p>
          )}
          <button className="btn btn-sm mt-1" disabled={busy || !text.trim()} onClick={() => void send()}>
            {isAsked ? "Send the answer" : "Send the question"}
          </button>
        </>
      )}
      {turn === "instructor" && <span className="quiet ml-3 text-sm">Your instructor has it.</span>}
    </section>
  );
}
