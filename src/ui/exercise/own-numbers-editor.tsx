import { useState } from "react";
import { checkVarying } from "@/core/check/exercise/own-numbers";
import type { Varying } from "@/core/check/exercise/varying";
import { readVarying, varyingAround, varyingText } from "@/core/exercise/varying-text";
import type { DrivingNumber } from "@/core/sizes/numbers";
import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";
import { refuse, type Outcome } from "@/core/units/refusal";
import { TextBox } from "./fields";
import type { ExerciseStore } from "./store";

/** Whether there is a part for everybody, before it is issued. */
function servedText(parts: number, students: number): string {
  if (!students) return "; the course has no students yet";
  const whom = `for the ${students} student${students === 1 ? "" : "s"} of this course`;
  return parts < students ? `: too few ${whom}` : `, ${whom}`;
}

/** A number with its value; most labels say it already. */
function calledWith(n: DrivingNumber, units: LengthUnit): string {
  const value = n.quantity === "angle" ? angleText(n.value) : lengthText(n.value, units);
  return n.label.includes(value) ? n.label : `${n.label}: ${value}`;
}

/** Own numbers: what of the reference differs from student to student. */
export function OwnNumbersEditor({
  store,
  numbers,
  students,
}: {
  store: ExerciseStore;
  numbers: readonly DrivingNumber[];
  /** How many the course has now. */
  students: number;
}) {
  const e = store((s) => s.exercise);
  const [trouble, setTrouble] = useState<string>();
  const { apply } = store.getState();
  const list = e.varies ?? [];
  const parts = list.length ? checkVarying(e, numbers) : undefined;
  const free = numbers.filter((n) => !list.some((v) => v.number === n.id));
  return (
    <fieldset aria-label="Own numbers">
      <p className="quiet text-sm">
        Numbers of the reference that differ from student to student: each gets a part and a Sheet of their own when it
        is issued.
      </p>
      <ul className="mt-2 space-y-2">
        {list.map((v) => (
          <OwnNumber
            key={v.number}
            varying={v}
            number={numbers.find((n) => n.id === v.number)}
            units={e.units}
            take={(varying) => apply({ do: "vary", varying })}
            drop={() => apply({ do: "drop-vary", number: v.number })}
          />
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <select
          className="select select-sm w-96 max-w-full"
          aria-label="Let a number vary"
          value=""
          disabled={!free.length || list.length >= 8}
          onChange={(ev) => {
            const n = numbers.find((k) => k.id === ev.target.value);
            const r = n && apply({ do: "vary", varying: varyingAround(n, e.units) });
            setTrouble(r && !r.ok ? r.refusal.sentence : undefined);
          }}
        >
          <option value="">Let a number vary …</option>
          {free.map((n) => (
            <option key={n.id} value={n.id}>
              {calledWith(n, e.units)}
            </option>
          ))}
        </select>
        {parts && (
          <span role="status" className={`text-sm ${parts.ok ? "quiet" : "text-error"}`}>
            {parts.ok ? `${parts.value} different parts${servedText(parts.value, students)}` : parts.refusal.sentence}
          </span>
        )}
        {trouble && (
          <span role="alert" className="text-sm text-error">
            {trouble}
          </span>
        )}
      </div>
    </fieldset>
  );
}

function OwnNumber(p: {
  varying: Varying;
  number: DrivingNumber | undefined;
  units: LengthUnit;
  take: (v: Varying) => Outcome<void>;
  drop: () => void;
}) {
  const { number } = p;
  return (
    <li className="flex flex-wrap items-end gap-3">
      <span className="w-72 max-w-full py-1 text-sm">
        {number ? calledWith(number, p.units) : "a number that is not there any more"}
      </span>
      <div className="min-w-40 flex-1">
        <TextBox
          label={number ? `Values of ${number.label}` : "Values"}
          value={number ? varyingText(p.varying, number.quantity, p.units) : ""}
          most={400}
          placeholder="20; 24; 28 or 20 to 40 by 4"
          take={(text) => {
            if (!number) return refuse("no-number", "This number is not in the reference any more.");
            const r = readVarying(text, number, p.units);
            return r.ok ? p.take(r.value) : r;
          }}
        />
      </div>
      <button type="button" className="btn btn-ghost btn-sm" onClick={p.drop}>
        The same for all
      </button>
    </li>
  );
}
