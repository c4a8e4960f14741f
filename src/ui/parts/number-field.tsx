"use client";

import { useEffect, useId, useRef } from "react";

/** A field for a size: takes what people type and always shows its unit. Enter accepts, Escape leaves. */
export function NumberField(props: {
  label?: string;
  value: string;
  unit: string;
  onChange: (text: string) => void;
  onEnter?: () => void;
  onEscape?: () => void;
  autoFocus?: boolean;
  wide?: boolean;
  trouble?: string | undefined;
  ariaLabel?: string;
}) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  // a unit that was typed is not shown twice
  const hasUnit = /[a-zµ"'°]\s*$/i.test(props.value);
  useEffect(() => {
    if (props.autoFocus) field.current?.select();
  }, [props.autoFocus]);
  return (
    <div className="min-w-0">
      {props.label && (
        <label htmlFor={id} className="mb-0.5 block text-xs quiet">
          {props.label}
        </label>
      )}
      <span
        className={`flex items-center rounded-field border bg-base-100 pr-2
          ${props.trouble ? "border-error" : "border-base-content/40"}
          ${props.wide ? "w-full" : "w-36 max-w-full"} focus-within:border-accent focus-within:ring-1
          focus-within:ring-accent`}
      >
        <input
          id={id}
          ref={field}
          aria-label={props.ariaLabel}
          className="number-input figures min-w-0 flex-1 bg-transparent px-2 py-1 text-right outline-none"
          value={props.value}
          autoFocus={props.autoFocus}
          autoComplete="off"
          spellCheck={false}
          onChange={(e) => props.onChange(e.target.value)}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === "Enter") props.onEnter?.();
            if (e.key === "Escape") props.onEscape?.();
          }}
        />
        {!hasUnit && <span className="figures text-xs quiet">{props.unit}</span>}
      </span>
      {props.trouble && (
        <p role="alert" className="mt-0.5 max-w-60 text-xs text-error">
          {props.trouble}
        </p>
      )}
    </div>
  );
}
