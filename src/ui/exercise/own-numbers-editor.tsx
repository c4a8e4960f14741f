import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import { checkVarying } from "@/core/check/exercise/own-numbers";
import type { DrivingNumber } from "@/core/sizes/numbers";
import { angleText, lengthText } from "@/core/units/quantity";
import { draftOf, varyingOf } from "./own-numbers-draft";

/** Whether there is a part for everybody, before it is issued. */
function servedText(parts: number, students: number): string {
  if (!students) return "; the course has no students yet";
  const whom = `for the ${students} student${students === 1 ? "" : "s"} of this course`;
  return parts < students ? `: too few ${whom}` : `, ${whom}`;
}

/** Own numbers: what of the reference differs from student to student. */
export function OwnNumbersEditor({
  exercise,
  numbers,
  students,
}: {
  exercise: Exercise;
  numbers: readonly DrivingNumber[];
  /** How many the course has now. */
  students: number;
}) {
  const { units } = exercise;
  const quantityOf = (id: string) => numbers.find((n) => n.id === id)?.quantity ?? "length";
  const [list, setList] = useState(() => (exercise.varies ?? []).map((v) => draftOf(v, quantityOf(v.number), units)));
  const read = varyingOf(list, numbers, units);
  const parts = read.ok ? checkVarying({ ...exercise, varies: [...read.value] }, numbers) : read;
  const free = numbers.filter((n) => !list.some((v) => v.number === n.id));
  const valueText = (n: DrivingNumber) => (n.quantity === "angle" ? angleText(n.value) : lengthText(n.value, units));
  // most labels say the value already
  const calledWith = (n: DrivingNumber) => (n.label.includes(valueText(n)) ? n.label : `${n.label}: ${valueText(n)}`);
  const change = (at: number, text: string) => setList((l) => l.map((v, i) => (i === at ? { ...v, text } : v)));
  return (
    <fieldset className="mt-4" aria-label="Own numbers">
      <legend className="font-semibold">Own numbers ({list.length})</legend>
      <p className="quiet mt-1 text-sm">
        Numbers of the reference that differ from student to student: each gets a part and a Sheet of their own when it
        is issued.
      </p>
      <input type="hidden" name="varies" value={JSON.stringify(list)} />
      <ul className="mt-2 space-y-2">
        {list.map((v, i) => {
          const n = numbers.find((k) => k.id === v.number);
          return (
            <li key={v.number} className="flex flex-wrap items-end gap-3">
              <span className="w-96 max-w-full py-1 text-sm">
                {n ? calledWith(n) : "a number that is not there any more"}
              </span>
              <label className="grow">
                <span className="quiet block text-xs">Values: 20; 24; 28 or 20 to 40 by 4</span>
                <input
                  className="input input-sm figures w-full max-w-md"
                  value={v.text}
                  maxLength={400}
                  aria-label={`Values of ${n?.label ?? v.number}`}
                  onChange={(e) => change(i, e.target.value)}
                />
              </label>
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                onClick={() => setList((l) => l.filter((_, k) => k !== i))}
              >
                The same for all
              </button>
            </li>
          );
        })}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <select
          className="select select-sm w-96 max-w-full"
          aria-label="Let a number vary"
          value=""
          disabled={!free.length || list.length >= 8}
          onChange={(e) => {
            const n = numbers.find((k) => k.id === e.target.value);
            if (n) setList((l) => [...l, { number: n.id, text: valueText(n) }]);
          }}
        >
          <option value="">Let a number vary …</option>
          {free.map((n) => (
            <option key={n.id} value={n.id}>
              {calledWith(n)}
            </option>
          ))}
        </select>
        {list.length > 0 && (
          <span role="status" className={`text-sm ${parts.ok ? "quiet" : "text-error"}`}>
            {parts.ok ? `${parts.value} different parts${servedText(parts.value, students)}` : parts.refusal.sentence}
          </span>
        )}
      </div>
    </fieldset>
  );
}
