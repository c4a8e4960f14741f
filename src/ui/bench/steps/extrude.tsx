"use client";

import { planeText } from "@/core/part/steps/sketch/sketch";
import type { ExtrudeStep } from "@/core/part/steps/extrude/extrude";
import { NumberField } from "../../parts/number-field";
import type { BenchStore } from "../store";

const EXTENTS = [["depth", "To depth"], ["both", "Both ways"], ["through", "Through"]] as const;

/** The card of an extrude step: what it does, how far, from which sketch; the model follows while typing. */
export function ExtrudeCard({ store, draft }: { store: BenchStore; draft: ExtrudeStep }) {
  const document = store((s) => s.history.present);
  const built = store((s) => s.built);
  const building = store((s) => s.building);
  const { changeDraft, acceptDraft, leave } = store.getState();
  const refusal = built?.steps.find((s) => s.id === draft.id)?.refusal;
  const depth = draft.extent.kind === "through" ? undefined : draft.extent.depth;
  const setExtent = (kind: (typeof EXTENTS)[number][0]) => changeDraft({ ...draft, extent: kind === "through" ? { kind } : { kind, depth: depth ?? (document.units === "mm" ? "10" : "1/2") } });
  const at = document.steps.findIndex((s) => s.id === draft.id);
  const sketches = document.steps.filter((s, i) => s.kind === "sketch" && (at < 0 || i < at));
  return (
    <form
      className="w-72 space-y-2.5 rounded-box border border-accent bg-base-100 p-3 shadow-lg" aria-label="Extrude"
      onSubmit={(e) => (e.preventDefault(), acceptDraft())}
      onKeyDown={(e) => e.key === "Escape" && (e.stopPropagation(), leave())}
    >
      <div className="flex items-center justify-between">
        <h2 className="font-semibold">Extrude</h2>
        {building && <span className="loading loading-dots loading-xs" />}
      </div>
      <div className="join w-full">
        {(["add", "cut"] as const).map((o) => (
          <button key={o} type="button" aria-pressed={draft.operation === o} className={`btn btn-sm join-item flex-1 ${draft.operation === o ? "btn-primary" : ""}`} onClick={() => changeDraft({ ...draft, operation: o, extent: o === "add" && draft.extent.kind === "through" ? { kind: "depth", depth: document.units === "mm" ? "10" : "1/2" } : draft.extent })}>
            {o === "add" ? "Add material" : "Cut material"}
          </button>
        ))}
      </div>
      <label className="flex items-center justify-between gap-2 text-sm">
        <span className="quiet text-xs">Sketch</span>
        <select className="select select-sm w-44" value={draft.sketch} onChange={(e) => { const { regions: _, ...rest } = draft; changeDraft({ ...rest, sketch: e.target.value }); }}>
          {sketches.map((s) => <option key={s.id} value={s.id}>{document.steps.indexOf(s) + 1} · {s.kind === "sketch" ? `on ${planeText(s.sketch.plane)}` : ""}</option>)}
        </select>
      </label>
      <div className="join w-full">
        {EXTENTS.filter(([k]) => draft.operation === "cut" || k !== "through").map(([k, text]) => (
          <button key={k} type="button" aria-pressed={draft.extent.kind === k} className={`btn btn-xs join-item flex-1 ${draft.extent.kind === k ? "btn-primary" : ""}`} onClick={() => setExtent(k)}>{text}</button>
        ))}
      </div>
      {draft.extent.kind !== "through" && (
        <div className="flex items-end justify-between gap-2">
          <NumberField
            label={draft.extent.kind === "both" ? "Whole depth" : "Depth"} value={String(draft.extent.depth)} unit={document.units} autoFocus
            onChange={(text) => changeDraft({ ...draft, extent: { kind: draft.extent.kind as "depth", depth: text } })} onEnter={acceptDraft} onEscape={leave}
          />
          {draft.extent.kind === "depth" && (
            <button type="button" aria-pressed={draft.reverse === true} className="btn btn-sm" onClick={() => { const { reverse, ...rest } = draft; changeDraft(reverse ? rest : { ...rest, reverse: true }); }}>Turn round</button>
          )}
        </div>
      )}
      <p className="quiet text-xs">Click regions of the sketch to take or leave them.</p>
      {refusal && !building && <p role="alert" className="text-sm text-error">{refusal.sentence}</p>}
      <div className="flex justify-end gap-2">
        <button type="button" className="btn btn-sm btn-ghost" onClick={leave}>Leave</button>
        <button className="btn btn-sm btn-primary" disabled={refusal !== undefined && !building}>Accept</button>
      </div>
    </form>
  );
}
