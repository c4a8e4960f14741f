"use client";

import { relationText } from "@/core/sketch/sentences";
import { isDimension, type Relation, type Sketch } from "@/core/sketch/sketch";
import { GLYPHS } from "../sketch/marks";
import type { BenchStore } from "../store";

/** One relation: what it says, picked at a click, removed at another. */
export function RelationRow({
  store,
  sketch,
  r,
  agreeing,
}: {
  store: BenchStore;
  sketch: Sketch;
  r: Relation;
  agreeing?: boolean;
}) {
  const unit = store((s) => s.history.present.units);
  const says = relationText(r, unit, sketch);
  const chosen = store((s) => s.selection.includes(r.id));
  return (
    <div
      data-relation={r.id}
      className={`group flex items-center gap-1.5 rounded-field px-1
        ${chosen ? "bg-[var(--rust-wash)]" : "hover:bg-base-200"}`}
    >
      <button
        className="flex min-w-0 flex-1 items-baseline gap-1.5 py-0.5 text-left"
        onClick={() => store.getState().select([r.id, ...r.of.filter((o) => !o.includes("."))])}
      >
        <span className="figures w-4 shrink-0 text-center" aria-hidden>
          {isDimension(r) ? "↔" : GLYPHS[r.kind]}
        </span>
        <span className="min-w-0">
          {says}
          {agreeing && <span className="quiet"> · adds nothing</span>}
        </span>
      </button>
      <button
        className="btn btn-ghost btn-xs opacity-40 group-hover:opacity-100 focus:opacity-100"
        aria-label={`Remove: ${says}`}
        onClick={() => store.getState().draw({ do: "delete", ids: [r.id] })}
      >
        ×
      </button>
    </div>
  );
}
