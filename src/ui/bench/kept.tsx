"use client";

import { useState } from "react";
import { SaveNote } from "../parts/save-note";
import type { BenchStore } from "./store";

export const AT_RISK =
  "The last changes could be kept neither in this browser nor on the server. Leave all the same, and lose them?";

/** Where the part is kept, and what can be done where it is not on the server. */
export function Kept({ store }: { store: BenchStore }) {
  const saved = store((s) => s.saved);
  const [copied, setCopied] = useState<boolean>();
  const { saver } = store.getState();
  return (
    <>
      <SaveNote saved={saved} hurry={() => saver.hurry()} />
      {saved.kind === "parted" && (
        <button
          className="btn btn-xs"
          disabled={copied}
          onClick={() => void saver.keepCopy(store.getState().history.present).then(setCopied)}
        >
          {copied ? "Kept in the history" : copied === false ? "Not kept: try again" : "Keep mine as a copy"}
        </button>
      )}
    </>
  );
}
