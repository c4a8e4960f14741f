"use client";

import { useEffect, type ReactNode } from "react";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import type { AnyRef } from "@/core/naming/reference";
import { refText } from "@/core/part/reference/text";
import { withStepsCalled } from "@/core/naming/words";
import type { Step } from "@/core/part/steps/kinds";
import type { Size } from "@/core/part/steps/fields";
import { NumberField } from "../../parts/number-field";
import type { BenchStore } from "../store";

/** What every card of a step gets. */
export interface CardProps<S extends Step = Step> {
  readonly store: BenchStore;
  readonly draft: S;
  readonly change: (next: (draft: S) => S) => void;
}

/** The frame of a step's card: its name, what it asks, what stands in its way, Leave and Accept. */
export function CardFrame({
  store,
  draft,
  title,
  children,
}: {
  store: BenchStore;
  draft: Step;
  title: string;
  children: ReactNode;
}) {
  const built = store((s) => s.built),
    building = store((s) => s.building);
  const { acceptDraft, leave } = store.getState();
  const state = built?.steps.find((s) => s.id === draft.id),
    refusal = state?.refusal;
  return (
    <form
      className={`max-h-[calc(100vh-16rem)] w-72 space-y-2 overflow-y-auto rounded-box border border-accent
        bg-base-100 p-3 text-sm shadow-lg`}
      aria-label={title}
      onSubmit={(e) => (e.preventDefault(), acceptDraft())}
      onKeyDown={(e) => e.key === "Escape" && (e.stopPropagation(), leave())}
    >
      <div className="flex items-center justify-between">
        <h2 className="font-semibold">{title}</h2>
        {building && <span className="loading loading-dots loading-xs" aria-label="building" />}
      </div>
      {children}
      {refusal && !building && (
        <p role="alert" className="text-sm text-error">
          {refusal.sentence}
        </p>
      )}
      {state?.lost?.map(
        (l) =>
          l.sentence !== refusal?.sentence && (
            <p key={l.path} role="alert" className="text-xs text-error">
              {l.sentence}
            </p>
          ),
      )}
      <div className="flex justify-end gap-2">
        <button type="button" className="btn btn-sm btn-ghost" onClick={leave}>
          Leave
        </button>
        <button className="btn btn-sm btn-primary" disabled={refusal !== undefined && !building}>
          Accept
        </button>
      </div>
    </form>
  );
}

/** One of a few ways, side by side. */
export function Choice<T extends string>({
  label,
  value,
  of,
  onChange,
  small,
}: {
  label: string;
  value: T;
  of: readonly (readonly [T, string])[];
  onChange: (v: T) => void;
  small?: boolean;
}) {
  return (
    <div className="flex w-full flex-wrap" role="group" aria-label={label}>
      {of.map(([k, text]) => (
        <button
          key={k}
          type="button"
          aria-pressed={value === k}
          className={`btn ${small ? "btn-xs" : "btn-sm"} flex-1 whitespace-nowrap rounded-none px-1.5
            font-normal first:rounded-l-field last:rounded-r-field ${value === k ? "btn-primary" : ""}`}
          onClick={() => onChange(k)}
        >
          {text}
        </button>
      ))}
    </div>
  );
}

/** A number of a step, typed in place. */
export function SizeInput({
  store,
  label,
  value,
  onChange,
  angle,
  autoFocus,
}: {
  store: BenchStore;
  label: string;
  value: Size;
  onChange: (v: string) => void;
  angle?: boolean;
  autoFocus?: boolean;
}) {
  const unit = store((s) => s.history.present.units);
  return (
    <NumberField
      label={label}
      value={String(value)}
      unit={angle ? "°" : unit}
      onChange={onChange}
      onEnter={() => store.getState().acceptDraft()}
      onEscape={() => store.getState().leave()}
      {...(autoFocus && { autoFocus })}
    />
  );
}

export function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-2 text-xs">
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={on}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}

/** How a reference reads in a card. */
export function calledIn(store: BenchStore, ref: AnyRef): string {
  const { units, steps } = store.getState().history.present;
  return withStepsCalled(refText(ref, units), steps).replace(/^the /, "");
}

/** Things picked on the part, one line each; while it is active, clicks on the part put more in. */
export function Picks({
  store,
  name,
  hint,
  take,
  items,
  onPick,
  onRemove,
}: {
  store: BenchStore;
  name: string;
  hint: string;
  take: readonly Thing["kind"][];
  items: readonly string[];
  onPick: (model: Model, thing: Thing) => void;
  onRemove: (i: number) => void;
}) {
  const active = store((s) => s.pickField?.name === name);
  const begin = () => store.getState().setPickField({ name, take, give: onPick });
  // what a click does must know the newest draft
  useEffect(() => {
    const { pickField } = store.getState();
    if (pickField?.name === name) pickField.give = onPick;
  });
  return (
    <div className={`rounded-field border ${active ? "border-accent" : "border-base-300"}`}>
      <button
        type="button"
        aria-pressed={active}
        className="flex w-full justify-between px-2 py-1 text-left text-xs"
        onClick={begin}
      >
        <span>{name}</span>
        <span className={active ? "text-accent" : "quiet"}>
          {active ? hint : items.length ? `${items.length} picked` : "click to pick"}
        </span>
      </button>
      {items.length > 0 && (
        <ul className="max-h-28 overflow-y-auto border-t border-base-300">
          {items.map((text, i) => (
            <li key={i} className="flex items-center justify-between gap-1 px-2 py-0.5 text-xs">
              <span className="truncate" title={text}>
                {text}
              </span>
              <button
                type="button"
                className="btn btn-ghost btn-xs btn-square"
                aria-label={`Take out ${text}`}
                onClick={() => onRemove(i)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** One reference: picked on the part, or chosen among what has a name. */
export function RefField<R extends AnyRef>({
  store,
  name,
  hint,
  take,
  value,
  options,
  onPick,
  onChoose,
}: {
  store: BenchStore;
  name: string;
  hint: string;
  take: readonly Thing["kind"][];
  value: R | undefined;
  options: readonly (readonly [string, R])[];
  onPick: (model: Model, thing: Thing) => void;
  onChoose: (r: R) => void;
}) {
  const active = store((s) => s.pickField?.name === name);
  useEffect(() => {
    const { pickField } = store.getState();
    if (pickField?.name === name) pickField.give = onPick;
  });
  const chosen = options.findIndex(([, r]) => JSON.stringify(r) === JSON.stringify(value));
  return (
    <div className="space-y-0.5">
      <div className="quiet text-xs">{name}</div>
      <div className="flex gap-1">
        <select
          aria-label={name}
          className="select select-xs min-w-0 flex-1"
          value={chosen}
          onChange={(e) => Number(e.target.value) >= 0 && onChoose(options[Number(e.target.value)]![1])}
        >
          {chosen < 0 && <option value={-1}>{value ? calledIn(store, value) : "not chosen"}</option>}
          {options.map(([text], i) => (
            <option key={text} value={i}>
              {text}
            </option>
          ))}
        </select>
        <button
          type="button"
          aria-pressed={active}
          className={`btn btn-xs ${active ? "btn-primary" : ""}`}
          onClick={() => store.getState().setPickField(active ? undefined : { name, take, give: onPick })}
        >
          {active ? hint : "Pick"}
        </button>
      </div>
    </div>
  );
}
