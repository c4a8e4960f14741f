"use client";

import { Pencil, Trash2, TriangleAlert } from "lucide-react";
import { kindOf, type Step } from "@/core/part/steps/registry";
import { diagnosisOf, type BenchStore } from "../store";

/** The Steps: what was done in which order, each with its figures; a step in trouble says what and why. */
export function StepList({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present);
  const mode = store((s) => s.mode);
  const built = store((s) => s.built);
  const open = mode.kind === "sketch" ? mode.step : mode.kind === "extrude" ? mode.draft.id : undefined;
  const detailOf = (step: Step): string => {
    const read = kindOf(step).read(step, document.units);
    if (step.kind !== "sketch") return read.detail;
    const d = diagnosisOf(step.sketch, document.units);
    const left = !step.sketch.curves.length ? "empty" : !d?.solved ? "cannot be solved" : d.freedoms ? `${d.freedoms} freedom${d.freedoms > 1 ? "s" : ""} left` : "fully defined";
    return `${read.detail} · ${left}`;
  };
  return (
    <section aria-label="Steps" className={`min-h-0 overflow-y-auto ${mode.kind === "sketch" ? "max-h-[26%] shrink-0" : "flex-1"}`}>
      <h2 className="quiet px-3.5 pb-1.5 pt-3 text-xs font-semibold">Steps</h2>
      {!document.steps.length && <p className="quiet px-3.5 py-2 text-sm">Nothing built yet. Begin with <b>Sketch</b> in the tray: choose a plane and draw the outline.</p>}
      <ol>
        {document.steps.map((step, i) => {
          const refusal = built?.steps.find((s) => s.id === step.id)?.refusal;
          return (
            <li key={step.id} data-step={step.id} className={`group flex items-start gap-2.5 border-l-3 px-3 py-1.5 ${open === step.id ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}`}>
              <span className="figures quiet w-4 pt-0.5 text-right text-xs">{i + 1}</span>
              <button className="min-w-0 flex-1 text-left" onClick={() => store.getState().editStep(step)}>
                <span className={`block font-medium ${step.suppressed ? "line-through opacity-60" : ""}`}>{step.name ?? kindOf(step).read(step, document.units).title}</span>
                <span className="quiet block text-xs">{detailOf(step)}</span>
                {refusal && <span role="alert" className="mt-0.5 flex gap-1 text-xs text-error"><TriangleAlert size={13} className="mt-0.5 shrink-0" aria-hidden />{refusal.sentence}</span>}
              </button>
              <span className="flex gap-1 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100">
                <button className="btn btn-ghost btn-xs btn-square" title="Edit" aria-label={`Edit step ${i + 1}`} onClick={() => store.getState().editStep(step)}><Pencil size={13} aria-hidden /></button>
                <button className="btn btn-ghost btn-xs btn-square" title="Delete" aria-label={`Delete step ${i + 1}`} onClick={() => store.getState().run({ do: "delete-step", id: step.id })}><Trash2 size={13} aria-hidden /></button>
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
