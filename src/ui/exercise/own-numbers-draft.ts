import type { Varying } from "@/core/check/exercise/varying";
import type { DrivingNumber } from "@/core/sizes/numbers";
import { angleText, lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";

/** A number that varies as it is typed: "20, 24, 28" or "20 to 40 by 4". */
interface VaryingDraft {
  readonly number: string;
  readonly text: string;
}

type Quantity = DrivingNumber["quantity"];
const textOf = (value: number, quantity: Quantity, units: LengthUnit) =>
  quantity === "angle" ? angleText(value) : lengthText(value, units);

/** As it would be typed. */
export function draftOf({ number, values }: Varying, quantity: Quantity, units: LengthUnit): VaryingDraft {
  const text = (value: number) => textOf(value, quantity, units);
  if ("of" in values) return { number, text: values.of.map(text).join("; ") };
  return { number, text: `${text(values.from)} to ${text(values.to)} by ${text(values.step)}` };
}

const RANGE = /^(.+?)\s+to\s+(.+?)\s+by\s+(.+)$/i;

/** Reads what was typed, in the unit of the exercise; values of a list by semicolons, or commas and spaces. */
export function varyingOf(
  drafts: readonly VaryingDraft[],
  numbers: readonly DrivingNumber[],
  units: LengthUnit,
): Outcome<readonly Varying[]> {
  const list: Varying[] = [];
  for (const { number, text } of drafts) {
    const known = numbers.find((n) => n.id === number);
    if (!known) return refuse("no-number", "Own numbers: choose which number of the reference differs.");
    const read = (typed: string) => readQuantity(typed.trim(), known.quantity, units);
    const range = RANGE.exec(text.trim());
    const typed = range ? range.slice(1) : text.split(/;|,\s+/).filter((t) => t.trim());
    const values: number[] = [];
    for (const t of typed) {
      const r = read(t);
      if (!r.ok) return refuse("bad-number", `Own numbers, ${known.label}: ${r.refusal.sentence}`);
      values.push(r.value);
    }
    const [from, to, step] = values;
    if (range && !(step! > 0 && to! > from!))
      return refuse("bad-range", `Own numbers, ${known.label}: give a range as “20 to 40 by 4”, from less to more.`);
    if (!range && values.length < 2)
      return refuse("one-value", `Own numbers, ${known.label}: give at least two values, as “20; 24; 28”.`);
    list.push({ number, values: range ? { from: from!, to: to!, step: step! } : { of: values } });
  }
  return done(list);
}
