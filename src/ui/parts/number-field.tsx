"use client";

import { createContext, useContext, useEffect, useId, useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { Outcome } from "@/core/units/refusal";

/** Told by every field of a card or form: what stands in it that cannot be read; nothing once it can. */
export const WrongFields = createContext<(id: string, sentence: string | undefined) => void>(() => undefined);

/** Told when typing begins and ends, so that all of it is one change. */
export const TypingSpell = createContext<(isTyping: boolean) => void>(() => undefined);

const WIDTHS = { whole: "w-full", card: "w-36 max-w-full", row: "w-32 max-w-full text-xs", small: "w-14" };

interface NumberFieldProps {
  label?: string | undefined;
  ariaLabel?: string | undefined;
  /** What stands, shown while nobody types. */
  value: string;
  unit: string;
  /** Reads what is typed; a refusal keeps it in the field and is told beside it. Left out: any text will do. */
  read?: ((text: string) => Outcome<unknown>) | undefined;
  /** A text that can be read, with every key: whoever shows the number may follow. */
  onChange?: (text: string) => void;
  /** What was typed, once, at Enter or when the field is left. False: it is not taken, and stays. */
  onDone?: (text: string) => boolean;
  onEnter?: () => void;
  onEscape?: () => void;
  autoFocus?: boolean | undefined;
  /** How wide it is: as its place, as a size in a card, or as a row of a table has room for. */
  width?: "whole" | "card" | "row" | "small";
  placeholder?: string | undefined;
  disabled?: boolean | undefined;
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
  const width = WIDTHS[props.width ?? "card"];
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
  const done = (given: string) => props.onDone?.(given.trim()) ?? true;
  /** What stood before it was typed over: nothing of it is given to anybody. */
  const takeBack = () => {
    flushSync(() => setTyped(undefined));
    field.current?.blur();
  };
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
          ${width} focus-within:border-accent focus-within:ring-1 focus-within:ring-accent`}
      >
        <input
          id={id}
          ref={field}
          aria-label={props.ariaLabel}
          aria-invalid={wrong !== undefined}
          aria-describedby={trouble ? `${id}-trouble` : undefined}
          className={`number-input figures min-w-0 flex-1 bg-transparent text-right outline-none disabled:opacity-60
            ${props.width === "row" ? "px-1" : "px-2 py-1"}`}
          placeholder={props.placeholder}
          disabled={props.disabled}
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
            if (!read || read(next).ok) props.onChange?.(next);
          }}
          onBlur={() => {
            spell(false);
            const isTaken = wrong === undefined && (typed === undefined || typed === value || done(typed));
            if (isTaken) setTyped(undefined);
            else setTold(true);
          }}
          onKeyDown={(event) => {
            if (!event.key.startsWith("Page")) event.stopPropagation();
            if (event.key === "Escape") {
              props.onEscape?.();
              if (props.onDone) takeBack();
            }
            if (event.key !== "Enter" || !(props.onEnter || props.onDone)) return;
            event.preventDefault();
            if (wrong !== undefined) return setTold(true);
            if (props.onDone) event.currentTarget.blur();
            props.onEnter?.();
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
