"use client";

import { X } from "lucide-react";
import type { ViewSpec } from "@/core/sheet/layout/layout";
import { SCALES, scaleText } from "@/core/sheet/layout/paper";
import type { BoardStore } from "./store";

/** Views that can be put on the Sheet by their name. */
const MORE = [
  ["front", "Front view"],
  ["top", "Top view"],
  ["left", "View from the left"],
  ["right", "View from the right"],
  ["bottom", "View from below"],
  ["rear", "View from behind"],
  ["pictorial", "Pictorial view"],
] as const;

/** The views of the Sheet: what lines they show, their scale, which go and which come. */
export function ViewList({ store }: { store: BoardStore }) {
  const drawn = store((s) => s.drawn),
    own = store((s) => s.arrangement.sheet.layout),
    chosen = store((s) => s.chosen);
  if (!drawn) return null;
  const { apply, choose } = store.getState();
  const specs = new Map([...drawn.layout.views, ...(own?.views ?? [])].map((v) => [v.key, v]));
  const left = MORE.filter(([name]) => !drawn.views.some((v) => v.key === name));
  return (
    <section aria-label="Views">
      <h2 className="font-semibold">Views</h2>
      <ul className="mt-1 space-y-0.5">
        {drawn.views.map((v) => {
          const spec = specs.get(v.key);
          return (
            <li key={v.key} className={chosen?.what === "view" && chosen.id === v.key ? "bg-[var(--rust-wash)]" : ""}>
              <div className="flex items-center gap-2">
                <button
                  className="flex-1 text-left hover:underline"
                  onClick={() => choose({ what: "view", id: v.key })}
                >
                  {v.title}
                </button>
                <span className="figures quiet text-xs">{scaleText(v.scale)}</span>
                <button
                  className="btn btn-ghost btn-xs btn-square"
                  aria-label={`Leave out: ${v.title}`}
                  title="Leave this view out"
                  onClick={() => apply({ change: "drop-view", key: v.key })}
                >
                  <X size={13} aria-hidden />
                </button>
              </div>
              {spec && chosen?.what === "view" && chosen.id === v.key && <ViewChoices store={store} spec={spec} />}
            </li>
          );
        })}
      </ul>
      {left.length > 0 && (
        <select
          className="select select-sm mt-2 w-full"
          aria-label="Add a view"
          value=""
          onChange={(e) => {
            const name = e.target.value;
            if (name) apply({ change: "add-view", view: { key: name, look: { from: "planned", name } } });
          }}
        >
          <option value="">Add a view …</option>
          {left.map(([name, text]) => (
            <option key={name} value={name}>
              {text}
            </option>
          ))}
        </select>
      )}
    </section>
  );
}

function ViewChoices({ store, spec }: { store: BoardStore; spec: ViewSpec }) {
  const { apply } = store.getState();
  const { key, look } = spec;
  const change = (to: Partial<Omit<ViewSpec, "key">>) => apply({ change: "view", key, to });
  const tick = (label: string, isOn: boolean, act: (on: boolean) => void) => (
    <label className="flex items-center gap-2">
      <input type="checkbox" className="checkbox checkbox-xs" checked={isOn} onChange={(e) => act(e.target.checked)} />
      {label}
    </label>
  );
  const undo = (text: string, act: () => void) => (
    <button className="btn btn-xs" onClick={act}>
      {text}
    </button>
  );
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-l-2 border-accent py-1 pl-2 text-sm">
      {tick("hidden lines", spec.hidden ?? false, (hidden) => change({ hidden }))}
      {tick("smooth edges", spec.tangent ?? false, (tangent) => change({ tangent }))}
      {look.from === "section" &&
        tick("from the other side", look.flip ?? false, (flip) => change({ look: { ...look, flip } }))}
      {look.from === "section" &&
        tick("only what is cut", look.slice ?? false, (slice) => change({ look: { ...look, slice } }))}
      {look.from === "planned" &&
        tick("without its section", look.plain ?? false, (plain) => change({ look: { ...look, plain } }))}
      <label className="flex items-center gap-1">
        scale
        <select
          className="select select-xs w-24"
          aria-label="Scale of this view"
          value={spec.scale ?? ""}
          onChange={(e) => change({ scale: e.target.value ? Number(e.target.value) : undefined })}
        >
          <option value="">of the Sheet</option>
          {withOwn(spec.scale).map((s) => (
            <option key={s} value={s}>
              {scaleText(s)}
            </option>
          ))}
        </select>
      </label>
      {spec.only && undo("Show the whole view", () => change({ only: undefined }))}
      {spec.breaks?.length && undo("Join what is interrupted", () => change({ breaks: undefined }))}
      {spec.local?.length && undo("Close local cuts", () => change({ local: undefined }))}
    </div>
  );
}

const withOwn = (own: number | undefined): readonly number[] =>
  own === undefined || SCALES.includes(own) ? SCALES : [own, ...SCALES];
