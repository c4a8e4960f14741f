import type { Varying } from "@/core/check/exercise/varying";
import type { DrivingNumber } from "@/core/sizes/numbers";
import { angleText, lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";

type Quantity = DrivingNumber["quantity"];

/** The values of an own number as they would be typed: "20; 24; 28" or "20 mm to 40 mm by 4 mm". */
export function varyingText({ values }: Varying, quantity: Quantity, units: LengthUnit): string {
  const text = (value: number) => (quantity === "angle" ? angleText(value) : lengthText(value, units));
  if ("of" in values) return values.of.map(text).join("; ");
  return `${text(values.from)} to ${text(values.to)} by ${text(values.step)}`;
}

const RANGE = /^(.+?)\s+to\s+(.+?)\s+by\s+(.+)$/i;

/** Reads what was typed, in the unit of the exercise; values of a list by semicolons, or commas and spaces. */
export function readVarying(
  text: string,
  number: Pick<DrivingNumber, "id" | "label" | "quantity">,
  units: LengthUnit,
): Outcome<Varying> {
  const { id, label, quantity } = number;
  const range = RANGE.exec(text.trim());
  const typed = range ? range.slice(1) : text.split(/;|,\s+/).filter((t) => t.trim());
  const values: number[] = [];
  for (const t of typed) {
    const r = readQuantity(t.trim(), quantity, units);
    if (!r.ok) return refuse("bad-number", `${label}: ${r.refusal.sentence}`);
    values.push(r.value);
  }
  const [from, to, step] = values;
  if (range && !(step! > 0 && to! > from!))
    return refuse("bad-range", `${label}: give a range as “20 to 40 by 4”, from less to more.`);
  if (!range && values.length < 2) return refuse("one-value", `${label}: give at least two values, as “20; 24; 28”.`);
  return done({ number: id, values: range ? { from: from!, to: to!, step: step! } : { of: values } });
}

/** Two values to begin with: as it is, and a tenth more in round steps. mm, radians */
export function varyingAround({ id, value, quantity }: DrivingNumber, units: LengthUnit): Varying {
  const one = quantity === "angle" ? Math.PI / 180 : { mm: 1, in: 25.4 / 8 }[units];
  const step = Math.max(one, Math.round(Math.abs(value) / 10 / one) * one);
  return { number: id, values: { of: [value, value + step] } };
}
