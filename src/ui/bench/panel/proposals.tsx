"use client";

import { useState } from "react";
import type { Proposal } from "@/core/sketch/define";
import type { BenchStore } from "../store";

/** What Define the rest proposes: each can be taken or left. */
export function Proposals({ store, proposals }: { store: BenchStore; proposals: readonly Proposal[] }) {
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const taken = proposals.filter((_, i) => !left.has(i)).map((p) => p.relation);
  const take = () => {
    const { draw, openPanel } = store.getState();
    if (
      draw({
        do: "pin",
        constraints: taken.flatMap((r) => ("value" in r ? [] : [r])),
        dimensions: taken.flatMap((r) => ("value" in r ? [r] : [])),
      })
    )
      openPanel(undefined);
  };
  const toggle = (i: number) => setLeft(new Set(left.has(i) ? [...left].filter((k) => k !== i) : [...left, i]));
  return (
    <div className="border-l-3 border-accent bg-[var(--rust-wash)] px-3.5 py-2">
      <h3 className="pb-1 text-xs font-semibold">Define the rest: take or leave each</h3>
      <ul aria-label="Proposals">
        {proposals.map((proposal, i) => (
          <li key={i}>
            <label className="flex items-start gap-2 py-0.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs mt-0.5"
                checked={!left.has(i)}
                onChange={() => toggle(i)}
                onFocus={() => store.getState().select(proposal.relation.of.filter((r) => !r.includes(".")))}
              />
              <span className={left.has(i) ? "quiet line-through" : ""}>{proposal.text}</span>
            </label>
          </li>
        ))}
      </ul>
      <div className="flex gap-2 pt-1.5">
        <button autoFocus className="btn btn-primary btn-xs" disabled={!taken.length} onClick={take}>
          Take {taken.length}
        </button>
        <button className="btn btn-ghost btn-xs" onClick={() => store.getState().leave()}>
          Leave all
        </button>
      </div>
    </div>
  );
}
