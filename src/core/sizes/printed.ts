import type { Carriers } from "./anchor";
import { limitsOf } from "./fits";
import { letteredAngle, letteredLength, type Lettering } from "./lettering";
import { measureSize, quantityOfSize, sizeText, type Size } from "./size";

/** How the numbers of one size are lettered: its own decimals or fractions before those of the drawing. */
export const letteringFor = (size: Size, l: Lettering): Lettering => {
  const { digits = l.digits, fractions = l.fractions } = size.lettering ?? {};
  return { ...l, digits, fractions };
};

/** A size as it stands on the drawing, with its tolerance and texts around it; empty where it cannot be measured. */
export function printedText(size: Size, on: Carriers, drawing: Lettering): string {
  const l = letteringFor(size, drawing);
  const plain = sizeText(size, on, l);
  if (!plain) return "";
  const { before, after, reference } = size.lettering ?? {};
  const toleranced = plain + toleranceText(size, on, l);
  const whole = [before, reference ? `(${toleranced})` : toleranced, after].filter(Boolean).join(" ");
  return whole;
}

function toleranceText(size: Size, on: Carriers, l: Lettering): string {
  const { fit, limits } = size.lettering ?? {};
  const nominal = measureSize(size, on).find((r) => r)?.[0]?.value ?? 0;
  const isAngle = quantityOfSize(size) === "angle";
  const one = (v: number) =>
    isAngle ? letteredAngle(v, 3) : letteredLength(v, { ...l, digits: DIGITS[l.unit], fractions: false });
  if (fit) {
    const r = limitsOf(nominal, fit);
    return r.ok ? ` ${fit} (${signed(r.value.upper, one)}/${signed(r.value.lower, one)})` : ` ${fit}`;
  }
  if (!size.tolerance) return "";
  const { plus, minus } = size.tolerance;
  if (limits) return ` [${one(nominal - minus)} – ${one(nominal + plus)}]`;
  return plus === minus ? ` ±${one(plus)}` : ` +${one(plus)}/−${one(minus)}`;
}
/** Tolerances want a thousandth of a millimetre, and half of that in inches. */
const DIGITS = { mm: 3, in: 4 } as const;

const signed = (v: number, one: (v: number) => string): string =>
  v === 0 ? "0" : `${v > 0 ? "+" : "−"}${one(Math.abs(v))}`;
