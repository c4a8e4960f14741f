import type { Sheet } from "@/core/sheet/sheet";
import { inUnit, type LengthUnit } from "@/core/units/quantity";

/** Digits that are typed for a printed number: more than any drawing letters. */
const DIGITS = 6;

/** The number field that is being typed in, where there is one. */
export const fieldAtWork = (): HTMLInputElement | undefined => {
  const at = document.activeElement;
  return at instanceof HTMLInputElement && at.classList.contains("number-input") ? at : undefined;
};

/** A printed number as it is typed: in the unit of the part, or degrees. */
export function typedNumber(d: Sheet["dimensions"][number], unit: LengthUnit): string | undefined {
  const [value] = d.values ?? [];
  if (value === undefined) return undefined;
  const isAngle = d.kind === "angle" || d.kind === "turn" || d.kind === "cone";
  return String(Number((isAngle ? (value * 180) / Math.PI : inUnit(value, unit)).toFixed(DIGITS)));
}

/**
 * What a field says after a printed number was clicked: the number itself, then what is left of it: 142, 38 and 27
 * give =142-38-27. After a sign that was typed it is that sign's.
 */
export function withNumberTaken(text: string, isWhole: boolean, number: string): string {
  const before = text.trim();
  if (!before || isWhole) return number;
  if (/[-+*/(=]$/.test(before)) return before + number;
  return `${before.startsWith("=") ? "" : "="}${before}-${number}`;
}

/** Types into a field the way a person does, so that whoever listens to it hears it. */
export function typeInto(field: HTMLInputElement, text: string): void {
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!;
  set.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
  field.setSelectionRange(text.length, text.length);
}
