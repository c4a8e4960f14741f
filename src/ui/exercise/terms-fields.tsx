"use client";

import { useState, type ReactNode } from "react";
import { SHOWS } from "@/core/grade/shows";
import type { Handout } from "@/server/handouts/handouts";
import { Field } from "./field";

/** What of a handout's terms is about marking. */
export type MarkingTerms = Pick<Handout, "attempts_most" | "counts" | "shows" | "practice" | "weight" | "hold_back">;

const START: MarkingTerms = {
  attempts_most: null,
  counts: "last",
  shows: SHOWS,
  practice: null,
  weight: 1,
  hold_back: false,
};

const SHOWN = [
  ["points", "points"],
  ["verdicts", "what is met and what is missed"],
  ["sentences", "a sentence for each line"],
  ["numbers", "what was measured on their part"],
  ["places", "places on their part"],
  ["targets", "what was wanted"],
] as const;

/** How often a handout is tried, what counts, and what its students see of a result. */
export function TermsFields({ start = START, children }: { start?: MarkingTerms; children?: ReactNode }) {
  const [practice, setPractice] = useState<string>(start.practice?.shows ?? "none");
  const { shows } = start;
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-sm text-accent">Tries, practice and what students see</summary>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <Field label="Tries, empty: any number">
          <input
            type="number"
            name="attempts"
            className="input w-28"
            min={1}
            max={100}
            step={1}
            defaultValue={start.attempts_most ?? ""}
          />
        </Field>
        <Field label="Which counts">
          <select name="counts" className="select w-36" defaultValue={start.counts}>
            <option value="last">the last</option>
            <option value="best">the best</option>
          </select>
        </Field>
        <Field label="Weight in the gradebook">
          <input
            type="number"
            name="weight"
            className="input w-28"
            min={0}
            max={1000}
            step="any"
            defaultValue={start.weight}
          />
        </Field>
        <Field label="Checks before handing in">
          <select
            name="practice"
            className="select w-56"
            value={practice}
            onChange={(e) => setPractice(e.target.value)}
          >
            <option value="none">none</option>
            <option value="fails">tell which lines fail</option>
            <option value="sentences">tell why as well</option>
            <option value="all">tell all, with points</option>
          </select>
        </Field>
        {practice !== "none" && (
          <Field label="How often, empty: any number">
            <input
              type="number"
              name="practice-most"
              className="input w-28"
              min={1}
              max={1000}
              step={1}
              defaultValue={start.practice?.most ?? ""}
            />
          </Field>
        )}
        <Field label="Students see their result">
          <select name="shows-when" className="select w-56" defaultValue={shows.when}>
            <option value="checked">as soon as it is checked</option>
            <option value="returned">when it is returned</option>
          </select>
        </Field>
        <label className="flex items-center gap-2 py-2 text-sm">
          <input type="checkbox" name="hold-back" className="checkbox checkbox-sm" defaultChecked={start.hold_back} />
          Return nothing before all were looked at
        </label>
        <fieldset className="flex w-full flex-wrap items-center gap-x-4 gap-y-1 text-sm">
          <legend className="quiet text-xs">Of it they see</legend>
          {SHOWN.map(([name, text]) => (
            <label key={name} className="flex items-center gap-2">
              <input
                type="checkbox"
                name={`shows-${name}`}
                className="checkbox checkbox-sm"
                defaultChecked={shows[name]}
              />
              {text}
            </label>
          ))}
        </fieldset>
        {children}
      </div>
    </details>
  );
}
