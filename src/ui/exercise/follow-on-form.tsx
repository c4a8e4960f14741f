import type { DrivingNumber } from "@/core/sizes/numbers";
import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";
import { useKeptForm } from "../parts/kept-form";
import type { Act } from "./give-station";

/** Makes the next exercise of a series: the same part with one number changed. */
export function FollowOnForm({
  id,
  numbers,
  units,
  act,
}: {
  id: string;
  numbers: readonly DrivingNumber[];
  units: LengthUnit;
  act: Act;
}) {
  const { said, busy, onSubmit } = useKeptForm(act, {});
  return (
    <form onSubmit={onSubmit} className="flex flex-wrap items-end gap-3" aria-label="Follow-on">
      <input type="hidden" name="id" value={id} />
      <select
        name="number"
        className="select select-sm w-96 max-w-full"
        aria-label="What changes"
        defaultValue=""
        required
      >
        <option value="" disabled>
          what changes …
        </option>
        {numbers.map((n) => (
          <option key={n.id} value={n.id}>
            {n.label}: {n.quantity === "angle" ? angleText(n.value) : lengthText(n.value, units)}
          </option>
        ))}
      </select>
      <label>
        <span className="quiet block text-xs">is next</span>
        <input name="to" className="input input-sm figures w-32 text-right" maxLength={60} required />
      </label>
      <button className="btn btn-sm" disabled={busy}>
        Make it
      </button>
      {said.sentence && (
        <p role="alert" className="text-error">
          {said.sentence}
        </p>
      )}
    </form>
  );
}
