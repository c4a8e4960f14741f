"use client";

import { useState } from "react";
import { limitsOf } from "@/core/sizes/fits";
import { quantityOfSize, type Size } from "@/core/sizes/size";
import { angleText, lengthText, readQuantity } from "@/core/units/quantity";
import type { BoardStore } from "./store";

/** What is chosen on the Sheet: how a size is lettered, what a remark says. */
export function ChosenCard({ store }: { store: BoardStore }) {
  const chosen = store((s) => s.chosen),
    sizes = store((s) => s.arrangement.sizes),
    remarks = store((s) => s.arrangement.sheet.layout?.remarks);
  if (!chosen || chosen.what === "view") return null;
  const { apply, choose } = store.getState();
  if (chosen.what === "remark") {
    const remark = remarks?.find((r) => r.id === chosen.id);
    if (!remark) return null;
    return (
      <section aria-label="Chosen remark" className="rounded-box border border-accent p-3">
        <h2 className="font-semibold">Remark</h2>
        <TextField
          key={remark.id}
          label="Words of the remark"
          value={remark.text}
          isFirst
          give={(text) => text && apply({ change: "remark", remark: { ...remark, text } })}
        />
        <button
          className="btn btn-xs mt-2"
          onClick={() => (apply({ change: "drop-remark", id: remark.id }), choose(undefined))}
        >
          Leave out
        </button>
      </section>
    );
  }
  const size = sizes.find((s) => s.id === chosen.id);
  return size ? <SizeCard key={size.id} store={store} size={size} /> : null;
}

function SizeCard({ store, size }: { store: BoardStore; size: Size }) {
  const drawn = store((s) => s.drawn),
    units = store((s) => s.exercise.units);
  const { apply, choose } = store.getState();
  const [wrong, setWrong] = useState<string>();
  const text = drawn?.sheet.dimensions.find((d) => d.id === size.id)?.text;
  const place = drawn?.layout.places[size.id];
  const l = size.lettering ?? {};
  const letter = (to: Partial<NonNullable<Size["lettering"]>>) => {
    setWrong(undefined);
    const { tolerance, free } = size;
    apply({ change: "letter", id: size.id, to: { lettering: { ...l, ...to }, tolerance, free } });
  };
  const quantity = quantityOfSize(size);
  const shown = (v: number | undefined) => {
    if (v === undefined) return "";
    return quantity === "angle" ? angleText(v) : lengthText(v, units, false);
  };
  const tolerate = (side: "plus" | "minus") => (typed: string) => {
    const { lettering, free } = size;
    if (!typed) return apply({ change: "letter", id: size.id, to: { lettering, free } });
    const r = readQuantity(typed, quantity, units);
    if (!r.ok) return setWrong(r.refusal.sentence);
    setWrong(undefined);
    const value = Math.abs(r.value);
    // the first that is typed holds for both sides
    const before = size.tolerance ?? { plus: value, minus: value };
    apply({ change: "letter", id: size.id, to: { lettering, free, tolerance: { ...before, [side]: value } } });
  };
  const fit = (typed: string) => {
    if (!typed) return letter({ fit: undefined });
    const value = drawn?.sheet.dimensions.find((d) => d.id === size.id)?.values?.[0] ?? 0;
    const r = limitsOf(value, typed);
    if (!r.ok) return setWrong(r.refusal.sentence);
    letter({ fit: typed });
  };
  const tick = (label: string, isOn: boolean | undefined, act: (on: boolean) => void) => (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={isOn ?? false}
        onChange={(e) => act(e.target.checked)}
      />
      {label}
    </label>
  );
  return (
    <section aria-label="Chosen size" className="rounded-box border border-accent p-3 text-sm">
      <h2 className="figures font-semibold">{text ?? "A size that no view shows"}</h2>
      <div className="mt-1 grid grid-cols-2 gap-x-3 gap-y-1">
        <TextField label="Text before" value={l.before ?? ""} give={(v) => letter({ before: v || undefined })} />
        <TextField label="Text after" value={l.after ?? ""} give={(v) => letter({ after: v || undefined })} />
        <TextField label="Tolerance, upwards" value={shown(size.tolerance?.plus)} give={tolerate("plus")} />
        <TextField label="downwards" value={shown(size.tolerance?.minus)} give={tolerate("minus")} />
        <TextField label="Class, as H7" value={l.fit ?? ""} give={fit} />
        <label className="block">
          <span className="quiet text-xs">Decimals</span>
          <select
            className="select select-xs w-full"
            value={l.fractions ? "fraction" : (l.digits ?? "")}
            onChange={(e) => {
              const v = e.target.value;
              letter({
                digits: v === "" || v === "fraction" ? undefined : Number(v),
                fractions: v === "fraction" || undefined,
              });
            }}
          >
            <option value="">as on the Sheet</option>
            {[0, 1, 2, 3, 4].map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
            {units === "in" && <option value="fraction">fraction</option>}
          </select>
        </label>
      </div>
      <div className="mt-2 space-y-1">
        {tick("in parentheses: it follows from others", l.reference, (on) => letter({ reference: on || undefined }))}
        {place?.form === "straight" &&
          tick("as an ordinate, counted from zero", place.ordinate, (on) =>
            apply({ change: "place", id: size.id, place: { ...place, ordinate: on || undefined } }),
          )}
        {tick("tolerance as limits", l.limits, (on) => letter({ limits: on || undefined }))}
        {tick("free: left to the student", size.free !== undefined, (on) => {
          const { lettering, tolerance } = size;
          apply({ change: "letter", id: size.id, to: { lettering, tolerance, ...(on && { free: true as const }) } });
        })}
      </div>
      {wrong && (
        <p role="alert" className="mt-1 text-error">
          {wrong}
        </p>
      )}
      <button
        className="btn btn-xs mt-2"
        onClick={() => (apply({ change: "drop-size", id: size.id }), choose(undefined))}
      >
        Leave out
      </button>
    </section>
  );
}

/** Takes what is typed when it is left, or at Enter; Escape gives back what stood there. */
function TextField({
  label,
  value,
  give,
  isFirst = false,
}: {
  label: string;
  value: string;
  give: (typed: string) => unknown;
  isFirst?: boolean;
}) {
  const [typed, setTyped] = useState<string>();
  const leave = () => {
    if (typed !== undefined && typed.trim() !== value) give(typed.trim());
    setTyped(undefined);
  };
  return (
    <label className="block">
      <span className="quiet text-xs">{label}</span>
      <input
        className="input input-xs w-full"
        value={typed ?? value}
        autoFocus={isFirst}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={leave}
        onKeyDown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key !== "Escape") return;
          setTyped(undefined);
          e.stopPropagation();
        }}
      />
    </label>
  );
}
