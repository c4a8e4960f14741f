import { calledIn } from "@/core/check/mistakes";
import type { PartDocument } from "@/core/part/document";
import { drivingNumbers, withSketchesDefined } from "@/core/sizes/numbers";
import { angleText, inUnit, lengthText, type LengthUnit } from "@/core/units/quantity";
import type { NumberMend } from "./cause";
import { slipsOf, type Printed } from "./slips";
import { TYPED } from "./tolerance";
import type { Changed } from "./turns";

/** A printed number. mm, radians. */
export interface PrintedSize {
  readonly size: string;
  /** As it stands on the drawing. */
  readonly text: string;
  readonly quantity: "length" | "angle";
  readonly printed: number;
}
/** One that the part has otherwise. */
export interface WrongSize extends PrintedSize {
  readonly measured: number;
}

/** What a drawing prints, and which of it is otherwise on a part. */
export interface WrongSizes {
  readonly all: readonly PrintedSize[];
  readonly wrong: readonly WrongSize[];
  /** What could not be measured: the faces it stands on are not there. */
  readonly lost: readonly PrintedSize[];
}

type Driving = ReturnType<typeof drivingNumbers>[number];

/** So much of a measured value may stand as a number in the part: itself, half of it, twice it. */
const PARTS = [1, 0.5, 2];

/**
 * A part with one number (or all that are alike) set so that a printed size may come out, the likeliest first.
 * @param how "as they stand": numbers that are the measured value, half or twice; "slipped": numbers that a hand makes
 * of one that could not be measured; "worked out": any number, moved by what the size is off, or by half of that
 */
export function numbersMended(
  document: PartDocument,
  { wrong, all, lost }: WrongSizes,
  how: "as they stand" | "slipped" | "worked out",
): Changed[] {
  const defined = withSketchesDefined(document);
  const own = new Set(drivingNumbers(document).map((n) => n.id));
  const numbers = drivingNumbers(defined).filter((n) => own.has(n.id));
  const seen = new Set<string>();
  const list: Changed[] = [];
  const put = (chosen: readonly Driving[], to: (n: Driving) => number, w: WrongSize) => {
    const key = chosen.map((n) => `${n.id}=${to(n).toFixed(5)}`).join();
    if (seen.has(key) || chosen.some((n) => Math.abs(to(n) - n.value) < TYPED)) return;
    seen.add(key);
    const [first, ...rest] = chosen as [Driving, ...Driving[]];
    const next = rest.reduce((d, n) => setIn(d, n.id, to(n)), first.give(to(first)));
    list.push({ mend: mendOf(document, first, to(first), w, all), document: next });
  };
  if (how === "slipped") {
    const plain = plainIn(document.units);
    for (const s of lost)
      for (const n of numbers.filter((m) => m.quantity === s.quantity)) {
        const [slip] = slipsOf(plain(n.value, n.quantity), plain(s.printed, s.quantity), []);
        if (slip?.kind !== "value") put([n], (x) => tidy(Math.sign(x.value) * s.printed), { ...s, measured: n.value });
      }
    return list;
  }
  for (const w of wrong) {
    const alike = numbers.filter((n) => n.quantity === w.quantity);
    if (how === "worked out") {
      for (const by of [w.printed - w.measured, (w.printed - w.measured) / 2])
        for (const sign of [1, -1]) for (const n of alike) put([n], (x) => tidy(x.value + sign * by), w);
      continue;
    }
    for (const part of PARTS) {
      const fit = alike.filter((n) => Math.abs(Math.abs(n.value) - part * w.measured) < TYPED);
      const to = (n: Driving) => tidy(Math.sign(n.value) * part * w.printed);
      for (const n of fit) put([n], to, w);
      if (fit.length > 1) put(fit, to, w);
    }
  }
  return list;
}

/** Found again in the document as it is by now. */
function setIn(d: PartDocument, id: string, value: number): PartDocument {
  return drivingNumbers(d)
    .find((n) => n.id === id)!
    .give(value);
}

/** A number that somebody might have typed: a thousandth where it is as near. */
function tidy(value: number): number {
  const round = Math.round(value * 1000) / 1000;
  return Math.abs(round - value) < TYPED ? round : value;
}

const degrees = (rad: number) => (rad * 180) / Math.PI;

function mendOf(
  document: PartDocument,
  number: Driving,
  to: number,
  w: WrongSize,
  all: readonly PrintedSize[],
): NumberMend {
  const isAngle = number.quantity === "angle";
  const text = (v: number) => (isAngle ? angleText(v) : lengthText(v, document.units));
  const plain = plainIn(document.units);
  const others = all
    .filter((s) => s.quantity === w.quantity && s.size !== w.size)
    .map((s): Printed => ({ value: plain(s.printed, s.quantity), text: s.text }));
  const slips = slipsOf(plain(w.measured, w.quantity), plain(w.printed, w.quantity), others);
  return {
    do: "number",
    ...(number.step !== undefined && { step: number.step }),
    called: calledIn(document, number),
    is: text(number.value),
    right: text(to),
    size: { id: w.size, text: w.text, measured: text(w.measured) },
    slips,
  };
}

const plainIn =
  (unit: LengthUnit) =>
  (v: number, quantity: "length" | "angle"): number =>
    quantity === "angle" ? degrees(v) : inUnit(v, unit);
