import type { Carriers } from "./anchor";
import { limitsOf, type Limits } from "./fits";
import { toleranceOf, type GeneralTolerance } from "./general";
import { asLettered, letteredAngle, letteredLength, type Lettering } from "./lettering";
import { measureSize, quantityOfSize, sizeText, type Size, type SizeReading } from "./size";
import { PRINT_HAIR } from "./tolerance";

/** How the numbers of one size are lettered: its own decimals or fractions before those of the drawing. */
export const letteringFor = (size: Size, l: Lettering): Lettering => {
  const { digits = l.digits, fractions = l.fractions } = size.lettering ?? {};
  return { ...l, digits, fractions };
};

/**
 * One number of a size as the drawing prints it: what a reader types, and how far a part may be off. The Sheet letters
 * it, the check judges by it, the Bench ticks by it. mm, radians.
 */
interface PrintedNumber {
  readonly what: string;
  readonly quantity: "length" | "angle" | "count";
  /** As lettered; nobody can know what was rounded away. */
  readonly nominal: number;
  /** The number alone, as lettered. */
  readonly text: string;
  /** Limits, as distances from the nominal; a fit may have both on one side, then one is negative. */
  readonly plus: number;
  readonly minus: number;
}

/**
 * The numbers of a size as they are printed.
 * @param reading what the size is on the reference
 * @param leg length of the shorter leg of angles, mm
 */
export function printedNumbers(
  size: Size,
  reading: SizeReading,
  drawing: Lettering,
  general: GeneralTolerance,
  leg: number,
): PrintedNumber[] {
  const l = letteringFor(size, drawing);
  return reading.map((v, i) => {
    const nominal = asLettered(v.value, v.quantity, l),
      limits = i === 0 ? fitOf(size, nominal) : undefined;
    const { plus, minus } = limits
      ? { plus: limits.upper, minus: -limits.lower }
      : toleranceOf(size, { ...v, value: nominal }, general, leg);
    // what the print rounds away is nobody's fault
    const rounded = Math.abs(nominal - v.value);
    return {
      what: v.what,
      quantity: v.quantity,
      nominal,
      text: numberText(nominal, v.quantity, l),
      plus: plus + rounded,
      minus: minus + rounded,
    };
  });
}

/** Whether a part has a number as it is printed. */
export const isAsPrinted = ({ nominal, plus, minus }: Omit<PrintedNumber, "what" | "quantity" | "text">, is: number) =>
  is <= nominal + plus + PRINT_HAIR && is >= nominal - minus - PRINT_HAIR;

/** A number as it is lettered, without unit. */
function numberText(value: number, quantity: PrintedNumber["quantity"], l: Lettering): string {
  if (quantity === "count") return String(value);
  return quantity === "angle" ? letteredAngle(value) : letteredLength(value, l);
}

/** The limits of the fit that a size is lettered with, where it is one that the standard knows. */
function fitOf(size: Size, nominal: number): Limits | undefined {
  const fit = size.lettering?.fit,
    read = fit === undefined ? undefined : limitsOf(nominal, fit);
  return read?.ok ? read.value : undefined;
}

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
  const quantity = quantityOfSize(size),
    isAngle = quantity === "angle";
  // limits stand about what is lettered, as they are judged
  const nominal = asLettered(measureSize(size, on).find((r) => r)?.[0]?.value ?? 0, quantity, l);
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
