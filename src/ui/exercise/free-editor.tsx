import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Targets } from "@/core/check/exercise/prepare";
import { begun } from "@/core/naming/words";
import { isSolidStep, titleOf } from "@/core/part/steps/kinds";
import { freeDraftsOf, freeOf, type FreeDraft } from "./free-draft";

const keyOf = (d: Pick<FreeDraft, "kind" | "of">): string => `${d.kind} ${d.of.join()}`;

/** Steps and things of the reference that are left to the student's judgement, within a band or altogether. */
export function FreeEditor({ exercise, things }: { exercise: Exercise; things: Targets["things"] }) {
  const { units, reference } = exercise;
  const [list, setList] = useState(() => freeDraftsOf(exercise.free, things, units));
  const steps = reference.steps.flatMap((s, i) =>
    !isSolidStep(s) || s.kind === "imported"
      ? []
      : [{ kind: "step" as const, of: [s.id], name: `Step ${i + 1}: ${titleOf(s)}` }],
  );
  const choices = [...steps, ...things.map((t) => ({ kind: "thing" as const, of: [...t.faces], name: begun(t.name) }))];
  const names = new Map(choices.map((c) => [keyOf(c), c.name]));
  const rest = choices.filter((c) => !list.some((d) => keyOf(d) === keyOf(c)));
  const read = freeOf(list, units);
  const change = (at: number, within: string) => setList((l) => l.map((d, i) => (i === at ? { ...d, within } : d)));
  return (
    <fieldset className="mt-4" aria-label="Left to the student">
      <legend className="font-semibold">Left to the student ({list.length})</legend>
      <p className="quiet mt-1 text-sm">
        Steps and things that everybody makes to their own judgement: no check asks for them, and the Sheet prints their
        sizes as free. With a distance they must be there and may be off by no more.
      </p>
      <input type="hidden" name="free" value={JSON.stringify(list)} />
      <ul className="mt-2 space-y-2">
        {list.map((d, i) => {
          const name = names.get(keyOf(d)) ?? "Something that is not there any more";
          return (
            <li key={keyOf(d)} className="flex flex-wrap items-center gap-3">
              <span className="w-96 max-w-full py-1 text-sm">{name}</span>
              <label className="flex items-center gap-2 text-sm">
                <span className="quiet">off by at most</span>
                <input
                  className="input input-sm figures w-24 text-right"
                  value={d.within}
                  maxLength={20}
                  placeholder="any"
                  aria-label={`How far off: ${name}`}
                  onChange={(e) => change(i, e.target.value)}
                />
                <span className="quiet">{units}</span>
              </label>
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                onClick={() => setList((l) => l.filter((_, k) => k !== i))}
              >
                As drawn
              </button>
            </li>
          );
        })}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <select
          className="select select-sm w-96 max-w-full"
          aria-label="Leave something to the student"
          value=""
          disabled={!rest.length}
          onChange={(e) => {
            const chosen = rest.find((c) => keyOf(c) === e.target.value);
            if (chosen) setList((l) => [...l, { kind: chosen.kind, of: chosen.of, within: "" }]);
          }}
        >
          <option value="">Leave something to the student …</option>
          {rest.map((c) => (
            <option key={keyOf(c)} value={keyOf(c)}>
              {c.name}
            </option>
          ))}
        </select>
        {!read.ok && (
          <span role="status" className="text-sm text-error">
            {read.refusal.sentence}
          </span>
        )}
      </div>
    </fieldset>
  );
}
