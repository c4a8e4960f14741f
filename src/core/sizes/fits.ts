import { done, refuse, type Outcome } from "@/core/units/refusal";

/** Upper ends of the ranges of nominal sizes, mm (ISO 286-1, table 1). */
const RANGES = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];

/** Standard tolerances by grade and range, µm (ISO 286-1, table 1). */
const GRADES: Readonly<Record<number, readonly number[]>> = {
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
  12: [100, 120, 150, 180, 210, 250, 300, 350, 400, 460, 520, 570, 630],
  13: [140, 180, 220, 270, 330, 390, 460, 540, 630, 720, 810, 890, 970],
};

/** How far below the nominal size a shaft's upper limit is, µm (ISO 286-1, table 4). */
const BELOW: Readonly<Record<string, readonly number[]>> = {
  d: [20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230],
  e: [14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135],
  f: [6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68],
  g: [2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20],
  h: RANGES.map(() => 0),
};
/** How far above it a shaft's lower limit is, µm (ISO 286-1, table 5). */
const ABOVE: Readonly<Record<string, readonly number[]>> = {
  k: [0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5],
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68],
};
/** Up to these grades a hole's deviation is drawn in, so that it pairs with a shaft of the next finer grade. */
const PAIRED: Readonly<Record<string, number>> = { k: 8, m: 8, n: 8, p: 7 };

/** Limits of a size, from its nominal one; mm. */
export interface Limits {
  readonly upper: number;
  readonly lower: number;
}

/**
 * The limits that an ISO 286 tolerance class gives a nominal size: capitals for holes, small letters for shafts.
 * @param nominal mm, up to 500 @param fit "H7", "g6", "JS9"
 */
export function limitsOf(nominal: number, fit: string): Outcome<Limits> {
  const read = /^([A-Za-z]{1,2})(\d{1,2})$/.exec(fit);
  const letter = read?.[1] ?? "",
    small = letter.toLowerCase(),
    isHole = letter !== small;
  const grade = Number(read?.[2]),
    range = RANGES.findIndex((to) => nominal <= to);
  const width = GRADES[grade]?.[range];
  const isKnown = small === "js" || small in BELOW || small in ABOVE;
  if (!read || width === undefined || range < 0 || nominal <= 0 || !isKnown)
    return refuse("bad-fit", `“${fit}” is not known: take a class like H7, g6 or JS9, for sizes up to 500 mm.`);
  const mm = (upper: number): Outcome<Limits> => done({ upper: upper / 1000, lower: (upper - width) / 1000 });
  if (small === "js") return mm(width / 2);
  const below = BELOW[small]?.[range];
  if (below !== undefined) return mm(isHole ? below + width : -below);
  const above = ABOVE[small]![range]!;
  if (!isHole) return mm((small === "k" && grade > FINEST_K ? 0 : above) + width);
  if (grade > PAIRED[small]!) return mm(small === "k" || small === "n" ? 0 : -above);
  // the first range is not drawn in, the others by the step to the next finer grade
  const drawn = range === 0 ? 0 : width - (GRADES[grade - 1]?.[range] ?? width);
  return mm(drawn - above);
}
/** Shafts k of coarser grades begin at the nominal size. */
const FINEST_K = 7;
