"use client";

import { planeText } from "@/core/part/steps/sketch/sketch";
import type { ExtrudeStep } from "@/core/part/steps/extrude/extrude";
import type { RevolveStep } from "@/core/part/steps/revolve/revolve";
import type { Operation } from "@/core/part/steps/step";
import type { Thin } from "@/core/part/steps/thin";
import { Choice, SizeInput, Tick, type CardProps } from "./card";

const OPERATIONS = [["add", "Add material"], ["cut", "Cut material"], ["keep", "Keep overlap"], ["separate", "Separate body"]] as const;

type Swept = ExtrudeStep | RevolveStep;

/** What extrude and revolve share: what is done with the volume, on which bodies, and from which sketch. */
export function SweepHead<S extends Swept>({ store, draft, change, onOperation }: CardProps<S> & { onOperation?: (o: Operation) => void }) {
  const document = store((s) => s.history.present);
  const bodies = store((s) => s.built?.bodies ?? []);
  const mode = store((s) => s.mode), at = mode.kind === "step" ? mode.at : document.steps.length;
  const sketches = document.steps.filter((s, i) => s.kind === "sketch" && i < at);
  const others = bodies.filter((b) => b.id !== draft.id), acts = draft.bodies;
  return (
    <>
      <Choice small label="What it does" value={draft.operation} of={OPERATIONS} onChange={(operation) => (onOperation ? onOperation(operation) : change((d) => ({ ...d, operation })))} />
      <label className="flex items-center justify-between gap-2">
        <span className="quiet text-xs">Sketch</span>
        <select className="select select-xs w-48" value={draft.sketch} onChange={(e) => change((d) => { const { regions: _, ...rest } = d; return { ...rest, sketch: e.target.value } as S; })}>
          {sketches.map((s) => <option key={s.id} value={s.id}>{document.steps.indexOf(s) + 1} · {s.name ?? (s.kind === "sketch" ? `on ${planeText(s.sketch.plane)}` : "")}</option>)}
        </select>
      </label>
      {others.length > 1 && draft.operation !== "separate" && (
        <div className="flex flex-wrap gap-x-3" role="group" aria-label="Bodies it acts on">
          {others.map((b) => (
            <Tick key={b.id} label={b.id} on={acts ? acts.includes(b.id) : draft.operation !== "add" || b === others[0]} onChange={(on) => change((d) => {
              const now = acts ?? (draft.operation === "add" ? [others[0]!.id] : others.map((o) => o.id)), next = on ? [...now, b.id] : now.filter((x) => x !== b.id);
              return next.length ? { ...d, bodies: next } : d;
            })} />
          ))}
        </div>
      )}
    </>
  );
}

/** A wall along the outline instead of the full volume. */
export function ThinFields<S extends Swept>({ store, draft, change }: CardProps<S>) {
  const unit = store((s) => s.history.present.units), { thin } = draft;
  const set = (t: Thin | undefined) => change((d) => { const { thin: _, ...rest } = d; return (t ? { ...rest, thin: t } : rest) as S; });
  return (
    <>
      <Tick label="Thin wall along the outline" on={thin !== undefined} onChange={(on) => set(on ? { thickness: unit === "mm" ? "2" : "1/16", side: "inside" } : undefined)} />
      {thin && (
        <>
          <SizeInput store={store} label="Thickness" value={thin.thickness} onChange={(thickness) => set({ ...thin, thickness })} />
          <Choice small label="Side of the wall" value={thin.side} of={[["inside", "inside"], ["outside", "outside"], ["middle", "half each"]]} onChange={(side) => set({ ...thin, side })} />
        </>
      )}
    </>
  );
}
