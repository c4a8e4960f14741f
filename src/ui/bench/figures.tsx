"use client";

import { readFigure } from "@/core/check/kinds/answers/read";
import { unitOfFigure, type AskedFigures } from "@/core/check/exercise/question";
import type { AnswersStore } from "./answers";

/** The figures that are asked for, typed here; they go out with the hand-in. */
export function Figures({ asked, store }: { asked: AskedFigures; store: AnswersStore }) {
  const answers = store((s) => s.answers);
  const type = store((s) => s.type);
  if (!asked.questions.length) return null;
  const done = asked.questions.filter((q) => answers[q.id]?.trim()).length;
  return (
    <section aria-label="Just the figure" className="border-t border-base-300 px-3.5 py-3">
      <h2 className="quiet flex justify-between pb-1 text-xs font-semibold">
        Just the figure
        <span className="font-normal">
          {done} of {asked.questions.length} typed
        </span>
      </h2>
      <ol className="space-y-2">
        {asked.questions.map((q) => {
          const typed = answers[q.id] ?? "";
          const r = typed.trim() ? readFigure(typed, q.quantity, asked) : undefined;
          return (
            <li key={q.id}>
              <label className="block">
                <span className="text-sm">{q.title}</span>
                <span className="input input-sm mt-0.5 w-full">
                  <input
                    className="figures grow text-right"
                    inputMode="decimal"
                    autoComplete="off"
                    maxLength={60}
                    value={typed}
                    aria-invalid={r?.ok === false}
                    onChange={(e) => type(q.id, e.target.value)}
                    onKeyDown={(e) => e.stopPropagation()}
                  />
                  <span className="quiet text-xs">{unitOfFigure(q.quantity, asked)}</span>
                </span>
              </label>
              {r?.ok === false && <p className="text-xs text-error">{r.refusal.sentence}</p>}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
