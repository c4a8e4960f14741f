"use client";

import { createContext, useContext, useEffect, useId, useRef, useState } from "react";
import type { Outcome } from "@/core/units/refusal";

/** Told by every field of a card or form: what stands in it that cannot be read; nothing once it can. */
export const WrongFields = createContext<(id: string, sentence: string | undefined) => void>(() => undefined);

/** Told when typing begins and ends, so that all of it is one change. */
export const TypingSpell = createContext<(isTyping: boolean) => void>(() => undefined);

interface NumberFieldProps {
  label?: string | undefined;
  ariaLabel?: string | undefined;
  /** What stands, shown while nobody types. */
  value: string;
  unit: string;
  /** Reads what is typed; a refusal keeps it in the field and is told beside it. Left out: any text will do. */
  read?: ((text: string) => Outcome<unknown>) | undefined;
  /** A text that can be read, with every key: whoever shows the number may follow. */
  onChange: (text: string) => void;
  onEnter?: () => void;
  onEscape?: () => void;
  autoFocus?: boolean | undefined;
  wide?: boolean;
  /** What somebody else has to say about it. */
  trouble?: string | undefined;
}

/**
 * The one field for numbers: the text is the typist's until Enter or until they go elsewhere, its unit always shows,
 * and what cannot be read stays and is told beside it. Enter accepts, Escape leaves.
 */
export function NumberField(props: NumberFieldProps) {
  const { value, read } = props;
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState<string>();
  const [isTold, setTold] = useState(false);
  const tellWrong = useContext(WrongFields),
    spell = useContext(TypingSpell);
  const text = typed ?? value;
  const outcome = typed === undefined ? undefined : read?.(typed);
  const wrong = outcome && !outcome.ok ? outcome.refusal.sentence : undefined;
  const trouble = (isTold ? wrong : undefined) ?? props.trouble;
  // a unit that was typed is not shown twice
  const hasUnit = /[a-zµ"'°]\s*$/i.test(text);
  useEffect(() => {
    if (props.autoFocus) field.current?.select();
  }, [props.autoFocus]);
  useEffect(() => {
    tellWrong(id, wrong);
    return () => tellWrong(id, undefined);
  }, [id, wrong, tellWrong]);
  // the number was changed elsewhere (an arrow dragged, an undo): what was typed over it is of yesterday
  useEffect(() => {
    if (document.activeElement !== field.current) setTyped(undefined);
  }, [value]);
  return (
    <div className="min-w-0">
      {props.label && (
        <label htmlFor={id} className="mb-0.5 block text-xs quiet">
          {props.label}
        </label>
      )}
      <span
        className={`flex items-center rounded-field border bg-base-100 pr-2
          ${trouble ? "border-error" : "border-base-content/40"}
          ${props.wide ? "w-full" : "w-36 max-w-full"} focus-within:border-accent focus-within:ring-1
          focus-within:ring-accent`}
      >
        <input
          id={id}
          ref={field}
          aria-label={props.ariaLabel}
          aria-invalid={wrong !== undefined}
          aria-describedby={trouble ? `${id}-trouble` : undefined}
          className="number-input figures min-w-0 flex-1 bg-transparent px-2 py-1 text-right outline-none"
          value={text}
          autoFocus={props.autoFocus}
          autoComplete="off"
          spellCheck={false}
          onFocus={(e) => {
            // where a number typed elsewhere goes: the field that was used last
            for (const other of e.currentTarget.form?.querySelectorAll("[data-last]") ?? [])
              other.removeAttribute("data-last");
            e.currentTarget.setAttribute("data-last", "");
            spell(true);
          }}
          onChange={(e) => {
            const next = e.target.value;
            setTyped(next);
            setTold(false);
            if (!read || read(next).ok) props.onChange(next);
          }}
          onBlur={() => {
            spell(false);
            if (wrong === undefined) setTyped(undefined);
            else setTold(true);
          }}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === "Escape") props.onEscape?.();
            if (e.key !== "Enter") return;
            if (!props.onEnter) return;
            e.preventDefault();
            if (wrong === undefined) props.onEnter();
            else setTold(true);
          }}
        />
        {!hasUnit && <span className="figures text-xs quiet">{props.unit}</span>}
      </span>
      {trouble && (
        <p id={`${id}-trouble`} role="alert" className="mt-0.5 max-w-60 text-xs text-error">
          {trouble}
        </p>
      )}
    </div>
  );
}
