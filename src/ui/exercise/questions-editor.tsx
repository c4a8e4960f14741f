import type { Exercise } from "@/core/check/exercise/exercise";
import { figureText } from "@/core/check/kinds/answers/kind";
import type { Question, Wanted } from "@/core/check/exercise/question";
import { percentText } from "@/core/units/amounts";
import { isSameSize, type Size } from "@/core/sizes/size";
import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";
import type { DrivingNumber } from "@/core/sizes/numbers";
import type { Outcome } from "@/core/units/refusal";
import { Measure } from "./measure";
import { Percent, TextBox } from "./fields";
import type { ExerciseStore } from "./store";

const WHOLE = [
  ["mass", "Mass"],
  ["volume", "Volume"],
  ["area", "Surface area"],
] as const;

/** Stands for a size that the Sheet printed once: it is kept as it was. */
const NO_LONGER = "as before";

/** A printed size as lettered. */
interface Printed {
  readonly id: string;
  readonly text: string;
  readonly size: Size;
}

/** A question to begin with, under an id that is free. */
function freshQuestion(list: readonly Question[]): Question {
  const used = new Set(list.map((q) => q.id));
  const id = Array.from({ length: list.length + 1 }, (_, i) => `q${i + 1}`).find((i) => !used.has(i))!;
  return { id, title: "Mass of the part", asks: { what: "mass" }, tolerance: 0.005 };
}

/** Just the figure: what the student types, of the part as drawn or after a stated change. */
export function QuestionsEditor({
  store,
  sizes,
  numbers,
  wanted,
}: {
  store: ExerciseStore;
  sizes: readonly Printed[];
  numbers: readonly DrivingNumber[];
  /** What is right, where it was worked out. */
  wanted: Wanted | undefined;
}) {
  const e = store((s) => s.exercise);
  const { apply } = store.getState();
  const list = e.questions ?? [];
  return (
    <fieldset aria-label="Just the figure">
      <p className="quiet text-sm">
        Figures the student types beside the part, or alone: of the part as drawn, or after a change that the question
        states. Give the line “Just the figure” points in the rubric.
      </p>
      <ol className="mt-2 space-y-3">
        {list.map((q, i) => (
          <OneQuestion
            key={q.id}
            place={i + 1}
            question={q}
            right={rightText(e, wanted, q)}
            units={e.units}
            sizes={sizes}
            numbers={numbers}
            take={(question) => apply({ do: "question", question })}
            drop={() => apply({ do: "drop-question", id: q.id })}
          />
        ))}
      </ol>
      <button
        type="button"
        className="btn btn-sm mt-2"
        disabled={list.length >= 40}
        onClick={() => apply({ do: "question", question: freshQuestion(list) })}
      >
        Ask for a figure
      </button>
    </fieldset>
  );
}

function rightText(e: Exercise, wanted: Wanted | undefined, q: Question): string | undefined {
  const right = wanted?.[q.id];
  return right && `${figureText(right.value, right.quantity, e)} ± ${percentText(q.tolerance)}`;
}

function OneQuestion(p: {
  place: number;
  question: Question;
  /** What is right, where it was worked out. */
  right: string | undefined;
  units: LengthUnit;
  sizes: readonly Printed[];
  numbers: readonly DrivingNumber[];
  take: (q: Question) => Outcome<void>;
  drop: () => void;
}) {
  const { question: q, take } = p;
  const { asks } = q;
  const shown =
    asks.what === "size" ? (p.sizes.find((s) => isSameSize(s.size, asks.size))?.id ?? NO_LONGER) : asks.what;
  const ask = (chosen: string) => {
    const whole = WHOLE.find(([w]) => w === chosen),
      size = p.sizes.find((s) => s.id === chosen)?.size;
    if (whole) take({ ...q, asks: { what: whole[0] } });
    else if (size) take({ ...q, asks: { what: "size", size } });
  };
  const changeAfter = (after: NonNullable<Question["after"]>) => {
    const { after: _, ...rest } = q;
    return take(after.length ? { ...rest, after } : rest);
  };
  return (
    <li className="rounded-box border border-base-300 p-3" data-question={q.id}>
      <div className="flex flex-wrap items-end gap-3">
        <div className="min-w-64 grow">
          <TextBox
            label={`Question ${p.place}, as the student reads it`}
            value={q.title}
            most={200}
            take={(title) => take({ ...q, title })}
          />
        </div>
        <label>
          <span className="quiet block text-xs">Asks for</span>
          <select className="select w-44" value={shown} onChange={(ev) => ask(ev.target.value)}>
            {WHOLE.map(([value, text]) => (
              <option key={value} value={value}>
                {text}
              </option>
            ))}
            {shown === NO_LONGER && <option value={NO_LONGER}>a size no longer printed</option>}
            {p.sizes.map((s) => (
              <option key={s.id} value={s.id}>
                size {s.text}
              </option>
            ))}
          </select>
        </label>
        <div className="w-24">
          <Percent label="within ±" value={q.tolerance} take={(tolerance) => take({ ...q, tolerance })} />
        </div>
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          aria-label={`Remove question ${p.place}`}
          onClick={p.drop}
        >
          Remove
        </button>
      </div>
      <Changes {...p} after={q.after ?? []} change={changeAfter} />
      {p.right && (
        <p className="quiet mt-2 text-sm">
          Right, as measured: <span className="figures">{p.right}</span>
        </p>
      )}
    </li>
  );
}

/** What a question changes of the reference first. */
function Changes(p: {
  place: number;
  units: LengthUnit;
  numbers: readonly DrivingNumber[];
  after: NonNullable<Question["after"]>;
  change: (after: NonNullable<Question["after"]>) => Outcome<void>;
}) {
  const { numbers, after, units } = p;
  const numberText = (n: DrivingNumber) => (n.quantity === "length" ? lengthText(n.value, units) : angleText(n.value));
  const [first] = numbers;
  const put = (at: number, what: Partial<(typeof after)[number]>) =>
    p.change(after.map((a, i) => (i === at ? { ...a, ...what } : a)));
  return (
    <>
      {after.map((a, k) => {
        const now = numbers.find((n) => n.id === a.number);
        return (
          <div key={k} className="mt-2 flex flex-wrap items-center gap-2 text-sm">
            <span className="quiet">after</span>
            <select
              aria-label={`Number ${k + 1} that question ${p.place} changes`}
              className="select select-sm w-72"
              value={a.number}
              onChange={(ev) => {
                const next = numbers.find((n) => n.id === ev.target.value);
                if (next) put(k, { number: next.id, value: next.value });
              }}
            >
              {!now && <option value={a.number}>a number that is gone</option>}
              {numbers.map((n) => (
                <option key={n.id} value={n.id}>
                  {n.label} ({numberText(n)})
                </option>
              ))}
            </select>
            <span className="quiet">becomes</span>
            <Measure
              ariaLabel={`Its new value in question ${p.place}`}
              value={a.value}
              quantity={now?.quantity ?? "length"}
              units={units}
              width="row"
              take={(value) => put(k, { value: value! }).ok}
            />
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              onClick={() => p.change(after.filter((_, j) => j !== k))}
            >
              Leave as drawn
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="btn btn-xs mt-2"
        disabled={!first || after.length >= 8}
        onClick={() => first && p.change([...after, { number: first.id, value: first.value }])}
      >
        After a change
      </button>
    </>
  );
}
