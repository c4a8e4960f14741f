"use client";

import { useCallback, useEffect, useRef, type ReactNode } from "react";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import type { AnyRef } from "@/core/naming/reference";
import { refText, refTexts } from "@/core/part/reference/text";
import { withStepsCalled } from "@/core/naming/words";
import type { Step } from "@/core/part/steps/kinds";
import type { Size } from "@/core/part/steps/fields";
import { parameterNames } from "@/core/part/parameters";
import { readQuantity } from "@/core/units/quantity";
import { NumberField, TypingSpell, WrongFields } from "../../parts/number-field";
import type { PickField } from "../state";
import type { BenchStore } from "../store";
import { useCamera } from "../view/viewport";

/** What every card of a step gets. */
export interface CardProps<S extends Step = Step> {
  readonly store: BenchStore;
  readonly draft: S;
  readonly change: (next: (draft: S) => S) => void;
}

/** What a card keeps free of the view's edges above and below, and what it has at least, pixels. */
const EDGE_PIXELS = 24,
  LEAST_PIXELS = 200;

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
  const leaving = store((s) => s.leaving);
  const { acceptDraft, answerLeaving, holdDraft, leave } = store.getState();
  const camera = store((s) => s.camera);
  useCamera(camera);
  const form = useRef<HTMLFormElement>(null);
  // ready for the hand: the field to be typed in first, or else whatever can be chosen first
  useEffect(() => {
    if (form.current?.contains(document.activeElement)) return;
    const fields = [".number-input", "select", "button"].map((kind) => form.current?.querySelector<HTMLElement>(kind));
    fields.find((f) => f)?.focus();
  }, []);
  const tellWrong = useCallback(
    (id: string, sentence: string | undefined) => store.getState().tellWrong(id, sentence),
    [store],
  );
  const state = built?.steps.find((s) => s.id === draft.id),
    refusal = state?.refusal;
  return (
    <form
      ref={form}
      data-card
      // it ends above the tray, however many rows that takes
      style={{ maxHeight: Math.max(LEAST_PIXELS, camera.height - camera.foot - EDGE_PIXELS) }}
      className={`w-72 space-y-2 overflow-y-auto rounded-box border border-accent
        bg-base-100 p-3 text-sm shadow-lg`}
      aria-label={title}
      onSubmit={(e) => (e.preventDefault(), void acceptDraft())}
      onKeyDown={(e) => e.key === "Escape" && (e.stopPropagation(), leave())}
    >
      <div className="flex items-center justify-between">
        <h2 className="font-semibold">{title}</h2>
        {building && <span className="loading loading-dots loading-xs" aria-label="building" />}
      </div>
      <WrongFields value={tellWrong}>
        <TypingSpell value={holdDraft}>{children}</TypingSpell>
      </WrongFields>
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
      {leaving && (
        <div role="alertdialog" aria-label="Not accepted yet" className="space-y-1.5 bg-[var(--rust-wash)] p-2 text-xs">
          <p>This card cannot be accepted yet. {leaving.why}</p>
          <button type="button" autoFocus className="btn btn-xs mr-2" onClick={() => answerLeaving(false)}>
            Stay and mend it
          </button>
          <button type="button" className="btn btn-xs" onClick={() => answerLeaving(true)}>
            Leave it and go on
          </button>
        </div>
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
  const document = store((s) => s.history.present),
    unit = document.units;
  return (
    <NumberField
      label={label}
      value={String(value)}
      unit={angle ? "°" : unit}
      read={(text) => readQuantity(text, angle ? "angle" : "length", unit, parameterNames(document))}
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

/** The same of several, each told from those called alike. */
export function calledApart(store: BenchStore, refs: readonly AnyRef[]): string[] {
  const { units, steps } = store.getState().history.present;
  return refTexts(refs, units).map((text) => withStepsCalled(text, steps).replace(/^the /, ""));
}

/** What a field of a card asks for on the part. */
interface Picking {
  /** Which field: another than every other field's of the card. */
  readonly id: string;
  readonly name: string;
  readonly take: readonly Thing["kind"][];
  readonly give: PickField["give"];
  /** The card opens ready to pick for it. */
  readonly first?: boolean | undefined;
}

/**
 * A field that takes what is clicked on the part. It goes when its card goes, and a click always knows the newest
 * draft.
 */
export function usePicking(store: BenchStore, { first, ...field }: Picking) {
  const isActive = store((s) => s.pickField?.id === field.id);
  const begin = () => store.getState().setPickField(field);
  const end = () => store.getState().setPickField(undefined);
  useEffect(() => {
    if (first && !store.getState().pickField) begin();
    return () => {
      if (store.getState().pickField?.id === field.id) end();
    };
  }, []);
  useEffect(() => {
    const { pickField } = store.getState();
    if (pickField?.id === field.id) pickField.give = field.give;
  });
  return { isActive, begin, end, toggle: () => (isActive ? end() : begin()) };
}

/** Things picked on the part, one line each; while it is active, clicks on the part put more in. */
export function Picks({
  store,
  id,
  name,
  hint,
  take,
  items,
  beside,
  first,
  onPick,
  onRemove,
}: {
  store: BenchStore;
  id?: string;
  name: string;
  first?: boolean;
  hint: string;
  take: readonly Thing["kind"][];
  items: readonly string[];
  /** What stands beside one of them, by its place and how it is called. */
  beside?: ((i: number, text: string) => ReactNode) | undefined;
  onPick: (model: Model, thing: Thing) => void;
  onRemove: (i: number) => void;
}) {
  const { isActive: active, begin } = usePicking(store, { id: id ?? name, name, take, give: onPick, first });
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
              <span className="flex-1 truncate" title={text}>
                {text}
              </span>
              {beside?.(i, text)}
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
  const { isActive: active, toggle } = usePicking(store, { id: name, name, take, give: onPick });
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
            <option key={i} value={i}>
              {text}
            </option>
          ))}
        </select>
        <button
          type="button"
          aria-pressed={active}
          className={`btn btn-xs ${active ? "btn-primary" : ""}`}
          onClick={toggle}
        >
          {active ? hint : "Pick"}
        </button>
      </div>
    </div>
  );
}
