import { useEffect, useId, useRef, useState, type ReactNode } from "react";
import { refuse, done, type Outcome } from "@/core/units/refusal";
import { NumberField } from "../parts/number-field";

/** A text that rests for so long is taken, also when the field is not left. */
const REST_MS = 1200;

/** A line or more of text: the typist's until it is left, Enter is pressed or it rests; then one change. */
export function TextBox(p: {
  label: string;
  value: string;
  most: number;
  /** Takes it; a refusal stays in the field and is told. */
  take: (text: string) => Outcome<unknown>;
  rows?: number;
  placeholder?: string;
  list?: string;
  /** A title that is not shown. */
  hidden?: boolean;
}) {
  const id = useId();
  const [typed, setTyped] = useState<string>();
  const [trouble, setTrouble] = useState<string>();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef<() => void>(() => undefined);
  const take = (isLeft: boolean) => {
    clearTimeout(timer.current);
    if (typed === undefined) return;
    const text = isLeft ? typed.trim() : typed;
    const r = text === p.value ? done(undefined) : p.take(text);
    setTrouble(r.ok ? undefined : r.refusal.sentence);
    if (r.ok && isLeft) setTyped(undefined);
  };
  latest.current = () => take(false);
  useEffect(() => () => clearTimeout(timer.current), []);
  const common = {
    id,
    value: typed ?? p.value,
    maxLength: p.most,
    placeholder: p.placeholder,
    "aria-invalid": trouble !== undefined,
    "aria-describedby": trouble ? `${id}-trouble` : undefined,
    onBlur: () => take(true),
    onChange: (e: { target: { value: string } }) => {
      setTyped(e.target.value);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => latest.current(), REST_MS);
    },
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={p.hidden ? "sr-only" : "quiet block text-xs"}>
        {p.label}
      </label>
      {p.rows ? (
        <textarea {...common} rows={p.rows} className="textarea w-full" />
      ) : (
        <input
          {...common}
          list={p.list}
          autoComplete="off"
          className="input w-full"
          onKeyDown={(e) => e.key === "Enter" && take(true)}
        />
      )}
      {trouble && (
        <p id={`${id}-trouble`} role="alert" className="mt-0.5 text-xs text-error">
          {trouble}
        </p>
      )}
    </div>
  );
}

/** One of a few. */
export function Choice<K extends string>(p: {
  label: string;
  value: K;
  options: readonly (readonly [K, string])[];
  take: (value: K) => unknown;
}) {
  return (
    <label className="block min-w-0">
      <span className="quiet block text-xs">{p.label}</span>
      <select className="select w-full" value={p.value} onChange={(e) => p.take(e.target.value as K)}>
        {p.options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
}

/** A thing that is so or not. */
export function Tick({ label, on, set }: { label: string; on: boolean; set: (on: boolean) => unknown }) {
  return (
    <label className="flex items-center gap-2 text-sm">
      <input type="checkbox" className="checkbox checkbox-sm" checked={on} onChange={(e) => set(e.target.checked)} />
      {label}
    </label>
  );
}

/** A plain number as it is typed, "1,5" as well. */
const readPlain = (text: string): Outcome<number> => {
  const n = Number(text.trim().replace(",", ".") || Number.NaN);
  return Number.isFinite(n) ? done(n) : refuse("bad-number", "This is no number.");
};

/** A plain number with its unit. */
export function Amount(p: {
  label?: string;
  ariaLabel?: string;
  value: number | undefined;
  unit: string;
  take: (n: number | undefined) => Outcome<unknown>;
  /** May be left empty. */
  optional?: boolean;
  width?: "whole" | "card" | "row" | "small";
  placeholder?: string;
}) {
  const [trouble, setTrouble] = useState<string>();
  const isEmpty = (text: string) => p.optional === true && !text.trim();
  return (
    <NumberField
      label={p.label}
      ariaLabel={p.ariaLabel}
      value={p.value === undefined ? "" : plain(p.value)}
      unit={p.unit}
      width={p.width ?? "whole"}
      placeholder={p.placeholder}
      trouble={trouble}
      read={(text) => (isEmpty(text) ? done(undefined) : readPlain(text))}
      onDone={(text) => {
        const n = isEmpty(text) ? done(undefined) : readPlain(text);
        const r = n.ok ? p.take(n.value) : n;
        setTrouble(r.ok ? undefined : r.refusal.sentence);
        return r.ok;
      }}
    />
  );
}
const plain = (n: number): string => String(Number(n.toPrecision(8)));

/** A share of something in per cent. */
export const Percent = (p: { label: string; value: number; take: (share: number) => Outcome<unknown> }) => (
  <Amount label={p.label} value={p.value * 100} unit="%" take={(n) => p.take(n! / 100)} />
);

/** What few need, folded away; says what it holds when it holds something. */
export function Fold({ title, holds, children }: { title: string; holds: string; children: ReactNode }) {
  return (
    <details className="border-t border-base-300 last:border-b">
      <summary className="flex cursor-pointer items-baseline gap-2 py-2.5 marker:content-none">
        <span aria-hidden className="fold-mark text-xs quiet">
          ▸
        </span>
        <span className="font-medium">{title}</span>
        <span className={`ml-auto text-right text-sm ${holds === "none" ? "quiet" : ""}`}>{holds}</span>
      </summary>
      <div className="pb-4 pl-4">{children}</div>
    </details>
  );
}
