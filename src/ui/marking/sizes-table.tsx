import type { CheckedSize, CheckedValue } from "@/core/check/kinds/sizes/kind";
import { letteredAngle, letteredLength } from "@/core/sizes/lettering";
import type { LengthUnit } from "@/core/units/quantity";

const STATES: Record<CheckedSize["state"], string> = {
  met: "as printed",
  missed: "not as printed",
  lost: "not found",
  free: "free",
};
const SIGNS: typeof STATES = { met: "✓", missed: "✗", lost: "✗", free: "" };
/** What needs a look comes first. */
const ORDER: readonly CheckedSize["state"][] = ["lost", "missed", "met", "free"];

function valueText(v: CheckedValue, value: number, unit: LengthUnit): string {
  if (v.quantity === "count") return String(value);
  return v.quantity === "angle" ? letteredAngle(value, 3) : letteredLength(value, { unit });
}

const measuredText = (s: CheckedSize, unit: LengthUnit): string =>
  s.values
    .map((v) => [...new Set(v.measured.map((m) => valueText(v, m, unit)))].join(" / "))
    .filter(Boolean)
    .join(" × ") || "–";

/** Every printed size with what the part has there. */
export function SizesTable({ sizes, unit }: { sizes: readonly CheckedSize[]; unit: LengthUnit }) {
  const sorted = [...sizes].sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state));
  return (
    <table className="table table-xs mt-2" data-testid="sizes">
      <thead>
        <tr>
          <th>Printed, {unit}</th>
          <th className="text-right">Measured</th>
          <th>Where</th>
        </tr>
      </thead>
      <tbody>
        {sorted.map((checked) => (
          <tr
            key={checked.id}
            data-state={checked.state}
            className={checked.state === "met" || checked.state === "free" ? "" : "text-accent"}
          >
            <td className="figures whitespace-nowrap">{checked.text}</td>
            <td className="figures whitespace-nowrap text-right">
              {measuredText(checked, unit)}
              <span className="ml-1.5" aria-label={STATES[checked.state]}>
                {SIGNS[checked.state]}
              </span>
            </td>
            <td className="first-letter:uppercase">
              {checked.name}
              {checked.state === "lost" || checked.state === "free" ? ` (${STATES[checked.state]})` : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
