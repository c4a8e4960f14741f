"use client";

import type { Vec2 } from "@/core/geometry/vector";
import { isWhollySeen } from "../slices/looking";
import { sketchOf, type BenchStore } from "../store";
import type { Field } from "../tools/tool";

/** As wide as what is typed into it. */
const FIELD = "figures min-w-14 max-w-44 bg-transparent text-right text-xs outline-none [field-sizing:content]";

/** What was drawn by typed numbers may end far outside: the view follows. */
function keepInSight(store: BenchStore): void {
  const { mode, history, camera, fit } = store.getState();
  const sketch = mode.kind === "sketch" ? sketchOf(history.present, mode.step) : undefined;
  if (sketch && !isWhollySeen(camera, sketch)) fit();
}

/**
 * Numbers of what is being drawn, beside the pointer: they follow it until they are typed. Tab goes on, Enter places.
 */
export function TypingFields({
  store,
  fields,
  at,
  unit,
  onChange,
}: {
  store: BenchStore;
  fields: readonly Field[];
  at: Vec2;
  unit: string;
  onChange: () => void;
}) {
  const { hand } = store.getState();
  const sign = (f: Field) =>
    f.quantity === "angle" ? "°" : f.quantity === "length" ? unit : f.quantity === "ratio" ? "×" : "";
  return (
    <div
      data-typing
      data-overlay
      className="absolute z-20 flex gap-1.5 rounded-field border border-base-300 bg-base-100/95 px-1.5 py-1 shadow-sm"
      style={{ left: at[0], top: at[1] }}
      onPointerDown={(e) => e.stopPropagation()}
    >
      {fields.map((f, i) => (
        <label key={f.label} className="flex items-center gap-1 text-[11px]">
          <span className="quiet">{f.label}</span>
          <span
            className={`flex items-center rounded-field border bg-base-100 px-1
              ${f.typed ? "border-accent" : "border-base-300"}`}
          >
            <input
              aria-label={f.label}
              className={FIELD}
              value={f.text}
              autoComplete="off"
              spellCheck={false}
              onFocus={(e) => e.currentTarget.select()}
              onChange={(e) => (hand.tool?.type?.(i, e.target.value), onChange())}
              onKeyDown={(e) => {
                if (e.key !== "Enter" && e.key !== "Escape") return e.stopPropagation();
                if (e.key === "Escape") return e.currentTarget.blur();
                e.preventDefault();
                e.stopPropagation();
                e.currentTarget.blur();
                hand.enter();
                keepInSight(store);
              }}
            />
            <span className="quiet figures text-[10px]">{sign(f)}</span>
          </span>
        </label>
      ))}
    </div>
  );
}
