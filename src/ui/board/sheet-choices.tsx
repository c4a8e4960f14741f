"use client";

import { PAPER_NAMES, SCALES, scaleText, type PaperName } from "@/core/sheet/layout/paper";
import type { BoardStore } from "./store";

/** Paper and scale, and which steps stay plain where they are cut. */
export function SheetChoices({ store }: { store: BoardStore }) {
  const drawn = store((s) => s.drawn),
    sheet = store((s) => s.arrangement.sheet),
    steps = store((s) => s.exercise.reference.steps);
  if (!drawn) return null;
  const { apply } = store.getState();
  const paper = sheet.paper ?? drawn.paper;
  const plain = sheet.unhatched ?? [];
  const isCut =
    drawn.layout.views.some((v) => v.look.from === "section") || (drawn.sheet.views ?? []).some((v) => v.cutters);
  const solid = steps.filter((s) => s.kind === "extrude" || s.kind === "revolve");
  return (
    <section aria-label="Paper and scale">
      <h2 className="font-semibold">Paper</h2>
      <div className="mt-1 flex flex-wrap gap-3">
        <select
          className="select select-sm w-40"
          aria-label="Paper"
          value={`${paper.name} ${paper.isLying ? "lying" : "upright"}`}
          onChange={(e) => {
            const name = PAPER_NAMES.find((p) => e.target.value.startsWith(p)) as PaperName;
            apply({ change: "settings", to: { paper: { name, isLying: e.target.value.endsWith("lying") } } });
          }}
        >
          {PAPER_NAMES.flatMap((name) => [`${name} upright`, `${name} lying`]).map((p) => (
            <option key={p}>{p}</option>
          ))}
        </select>
        <select
          className="select select-sm w-24"
          aria-label="Scale of the Sheet"
          value={drawn.layout.scale}
          onChange={(e) => apply({ change: "scale", scale: Number(e.target.value) })}
        >
          {SCALES.map((s) => (
            <option key={s} value={s}>
              {scaleText(s)}
            </option>
          ))}
        </select>
      </div>
      {isCut && solid.length > 0 && (
        <details className="mt-2 text-sm">
          <summary className="cursor-pointer">Ribs, shafts and pins that stay plain where they are cut</summary>
          {solid.map((s) => (
            <label key={s.id} className="mt-1 flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={plain.includes(s.id)}
                onChange={(e) => {
                  const unhatched = e.target.checked ? [...plain, s.id] : plain.filter((p) => p !== s.id);
                  apply({ change: "settings", to: { unhatched: unhatched.length ? unhatched : undefined } });
                }}
              />
              Step {steps.indexOf(s) + 1}, {s.name ?? s.kind}
            </label>
          ))}
        </details>
      )}
    </section>
  );
}
