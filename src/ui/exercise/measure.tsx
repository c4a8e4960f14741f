import { angleText, lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { NumberField } from "../parts/number-field";

/** A length or an angle as it is typed, in the unit of the exercise; mm and radians. */
export function Measure(p: {
  label?: string;
  ariaLabel?: string;
  value: number | undefined;
  quantity: "length" | "angle";
  units: LengthUnit;
  optional?: boolean;
  width?: "whole" | "card" | "row" | "small";
  placeholder?: string;
  /** @returns whether it was taken */
  take: (value: number | undefined) => boolean;
}) {
  const isEmpty = (text: string) => p.optional === true && !text.trim();
  const shown = (v: number) => (p.quantity === "angle" ? angleText(v) : lengthText(v, p.units, false));
  return (
    <NumberField
      label={p.label}
      ariaLabel={p.ariaLabel}
      value={p.value === undefined ? "" : shown(p.value)}
      unit={p.quantity === "angle" ? "°" : p.units}
      width={p.width ?? "whole"}
      placeholder={p.placeholder}
      read={(text) => (isEmpty(text) ? { ok: true, value: undefined } : readQuantity(text, p.quantity, p.units))}
      onDone={(text) => {
        if (isEmpty(text)) return p.take(undefined);
        const r = readQuantity(text, p.quantity, p.units);
        return r.ok && p.take(r.value);
      }}
    />
  );
}
