"use client";

import { useState } from "react";
import type { SaveState } from "./saver";
import type { BenchStore } from "./store";

export const AT_RISK =
  "The last changes could be kept neither in this browser nor on the server. Leave all the same, and lose them?";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** What is true of the last change, in a few words. */
function textOf(saved: SaveState): string {
  if (saved.kind === "saved")
    return saved.at ? `Kept on the server at ${clock.format(new Date(saved.at))}` : "Kept on the server";
  return saved.kind === "sending" ? "Being sent …" : saved.sentence;
}

/** Where the part is kept, and what can be done where it is not on the server. */
export function Kept({ store }: { store: BenchStore }) {
  const saved = store((s) => s.saved);
  const [copied, setCopied] = useState<boolean>();
  const isCalm = saved.kind === "saved" || saved.kind === "sending";
  const { saver } = store.getState();
  return (
    <>
      <span role="status" className={`ml-auto max-w-[34rem] text-sm ${isCalm ? "quiet" : "text-error"}`}>
        {textOf(saved)}
      </span>
      {(saved.kind === "here" || saved.kind === "nowhere") && (
        <button className="btn btn-xs" onClick={() => saver.hurry()}>
          Try now
        </button>
      )}
      {saved.kind === "parted" && (
        <>
          <button className="btn btn-xs" onClick={() => window.location.reload()}>
            Take theirs
          </button>
          <button
            className="btn btn-xs"
            disabled={copied}
            onClick={() => void saver.keepCopy(store.getState().history.present).then(setCopied)}
          >
            {copied ? "Kept in the history" : copied === false ? "Not kept: try again" : "Keep mine as a copy"}
          </button>
        </>
      )}
    </>
  );
}
