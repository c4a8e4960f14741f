import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import { figureText } from "@/core/check/kinds/answers/kind";
import type { Question, Wanted } from "@/core/check/exercise/question";
import { percentText } from "@/core/units/amounts";
import { isSameSize, type Size } from "@/core/sizes/size";
import { angleText, lengthText } from "@/core/units/quantity";
import type { DrivingNumber } from "@/core/sizes/numbers";

/** A question as it is typed: new numbers as text. */
interface Draft {
  readonly id: string;
  readonly title: string;
  /** mass, volume, area, or the id of a printed size. */
  readonly asks: string;
  readonly after: readonly { readonly number: string; readonly text: string }[];
  /** Per cent. */
  readonly tolerance: string;
}

const WHOLE = [
  ["mass", "Mass"],
  ["volume", "Volume"],
  ["area", "Surface area"],
] as const;

/** Stands for a size that the Sheet printed once: it is kept as it was. */
const NO_LONGER = "as before";

interface Props {
  readonly exercise: Exercise;
  /** Printed sizes by id, as lettered. */
  readonly sizes: readonly { readonly id: string; readonly text: string; readonly size: Size }[];
  readonly numbers: readonly DrivingNumber[];
  /** What is right, where it was worked out. */
  readonly wanted: Wanted | undefined;
}

/** Just the figure: what the student types, of the part as drawn or after a stated change. */
export function QuestionsEditor({ exercise, sizes, numbers, wanted }: Props) {
  const { units } = exercise;
  const numberText = (n: DrivingNumber) => (n.quantity === "length" ? lengthText(n.value, units) : angleText(n.value));
  const shownAs = (size: Size) => sizes.find((s) => isSameSize(s.size, size))?.id ?? NO_LONGER;
  const draftOf = (q: Question): Draft => ({
    id: q.id,
    title: q.title,
    asks: q.asks.what === "size" ? shownAs(q.asks.size) : q.asks.what,
    after: (q.after ?? []).map(({ number, value }) => {
      const isAngle = numbers.find((n) => n.id === number)?.quantity === "angle";
      return { number, text: isAngle ? angleText(value) : lengthText(value, units) };
    }),
    tolerance: String(Number((q.tolerance * 100).toPrecision(6))),
  });
  const rightText = (id: string) => {
    const right = wanted?.[id],
      share = exercise.questions?.find((o) => o.id === id)?.tolerance ?? 0;
    return right && `${figureText(right.value, right.quantity, exercise)} ± ${percentText(share)}`;
  };
  const [list, setList] = useState(() => (exercise.questions ?? []).map(draftOf));
  const change = (id: string, what: Partial<Draft>) =>
    setList((l) => l.map((q) => (q.id === id ? { ...q, ...what } : q)));
  const add = () =>
    setList((l) => {
      const used = new Set(l.map((q) => q.id));
      const id = Array.from({ length: l.length + 1 }, (_, i) => `q${i + 1}`).find((i) => !used.has(i))!;
      return [...l, { id, title: "Mass of the part", asks: "mass", after: [], tolerance: "0.5" }];
    });
  return (
    <fieldset className="mt-4" aria-label="Just the figure">
      <legend className="font-semibold">Just the figure ({list.length})</legend>
      <p className="quiet mt-1 text-sm">
        Figures the student types beside the part, or alone: of the part as drawn, or after a change that the question
        states. Give the line “Just the figure” points in the rubric.
      </p>
      <input type="hidden" name="questions" value={JSON.stringify(list)} />
      <ol className="mt-2 space-y-3">
        {list.map((draft, i) => (
          <li key={draft.id} className="rounded-box border border-base-300 p-3" data-question={draft.id}>
            <div className="flex flex-wrap items-end gap-3">
              <label className="min-w-64 grow">
                <span className="quiet text-xs">Question {i + 1}, as the student reads it</span>
                <input
                  className="input input-sm w-full"
                  value={draft.title}
                  maxLength={200}
                  onChange={(e) => change(draft.id, { title: e.target.value })}
                />
              </label>
              <label>
                <span className="quiet block text-xs">Asks for</span>
                <select
                  className="select select-sm w-44"
                  value={draft.asks}
                  onChange={(e) => change(draft.id, { asks: e.target.value })}
                >
                  {WHOLE.map(([value, text]) => (
                    <option key={value} value={value}>
                      {text}
                    </option>
                  ))}
                  {draft.asks === NO_LONGER && <option value={NO_LONGER}>a size no longer printed</option>}
                  {sizes.map((s) => (
                    <option key={s.id} value={s.id}>
                      size {s.text}
                    </option>
                  ))}
                </select>
              </label>
              <label>
                <span className="quiet block text-xs">within ± %</span>
                <input
                  className="input input-sm figures w-20 text-right"
                  inputMode="decimal"
                  value={draft.tolerance}
                  onChange={(e) => change(draft.id, { tolerance: e.target.value })}
                />
              </label>
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                aria-label={`Remove question ${i + 1}`}
                onClick={() => setList((l) => l.filter((o) => o.id !== draft.id))}
              >
                Remove
              </button>
            </div>
            {draft.after.map((a, k) => {
              const put = (what: Partial<typeof a>) =>
                change(draft.id, { after: draft.after.map((o, j) => (j === k ? { ...o, ...what } : o)) });
              const now = numbers.find((n) => n.id === a.number);
              return (
                <div key={k} className="mt-2 flex flex-wrap items-center gap-2 text-sm">
                  <span className="quiet">after</span>
                  <select
                    aria-label={`Number ${k + 1} that question ${i + 1} changes`}
                    className="select select-sm w-80"
                    value={a.number}
                    onChange={(e) => put({ number: e.target.value })}
                  >
                    {!now && <option value={a.number}>a number that is gone</option>}
                    {numbers.map((n) => (
                      <option key={n.id} value={n.id}>
                        {n.label} ({numberText(n)})
                      </option>
                    ))}
                  </select>
                  <span className="quiet">becomes</span>
                  <input
                    aria-label={`Its new value in question ${i + 1}`}
                    className="input input-sm figures w-28 text-right"
                    placeholder={now && numberText(now)}
                    value={a.text}
                    onChange={(e) => put({ text: e.target.value })}
                  />
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs"
                    onClick={() => change(draft.id, { after: draft.after.filter((_, j) => j !== k) })}
                  >
                    Leave as drawn
                  </button>
                </div>
              );
            })}
            <div className="mt-2 flex items-center gap-4 text-sm">
              <button
                type="button"
                className="btn btn-xs"
                disabled={!numbers.length || draft.after.length >= 8}
                onClick={() => change(draft.id, { after: [...draft.after, { number: numbers[0]!.id, text: "" }] })}
              >
                After a change
              </button>
              {wanted?.[draft.id] && (
                <span className="quiet">
                  Right, as saved: <span className="figures">{rightText(draft.id)}</span>
                </span>
              )}
            </div>
          </li>
        ))}
      </ol>
      <button type="button" className="btn btn-sm mt-2" disabled={list.length >= 40} onClick={add}>
        Ask for a figure
      </button>
    </fieldset>
  );
}
