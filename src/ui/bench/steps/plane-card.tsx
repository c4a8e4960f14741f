"use client";

import { useState } from "react";
import { readQuantity } from "@/core/units/quantity";
import { NumberField } from "../../parts/number-field";
import type { BenchStore } from "../store";

const PLANES = [["front", "seen from the front"], ["top", "seen from above"], ["right", "seen from the right"]] as const;

/** Where a new sketch is to lie. */
export function PlaneCard({ store }: { store: BenchStore }) {
  const unit = store((s) => s.history.present.units);
  const [offset, setOffset] = useState("0");
  const read = readQuantity(offset || "0", "length", unit);
  const { newSketch, leave } = store.getState();
  return (
    <div className="w-64 space-y-2 rounded-box border border-accent bg-base-100 p-3 shadow-lg" aria-label="New sketch" onKeyDown={(e) => e.key === "Escape" && (e.stopPropagation(), leave())}>
      <h2 className="font-semibold">New sketch on…</h2>
      {PLANES.map(([base, text], i) => (
        <button key={base} autoFocus={i === 0} className="btn btn-sm w-full justify-between" disabled={!read.ok} onClick={() => read.ok && newSketch(base, read.value)}>
          <span className="font-semibold">{base}</span><span className="quiet font-normal">{text}</span>
        </button>
      ))}
      <NumberField label="moved towards you by" value={offset} unit={unit} onChange={setOffset} onEscape={leave} trouble={read.ok ? undefined : read.refusal.sentence} />
      <div className="flex justify-end"><button className="btn btn-sm btn-ghost" onClick={leave}>Leave</button></div>
    </div>
  );
}
