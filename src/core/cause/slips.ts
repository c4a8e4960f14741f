import { isClose } from "./tolerance";

/** How a hand gets a number wrong. */
export type SlipKind =
  "twice" | "half" | "exchanged" | "digit" | "tenfold" | "tenth" | "inch" | "other-size" | "sum" | "value";

/** A number of a drawing as it is printed there, in the drawing's unit or degrees, and how it is lettered. */
export interface Printed {
  readonly value: number;
  readonly text: string;
}

/** A way that leads from the number of the drawing to the one that was typed. */
export interface Slip {
  readonly kind: SlipKind;
  /** The other printed number that was taken, added or taken off. */
  readonly other?: string;
}

/** Digits as they are typed, without a sign; at most four places. */
const typed = (n: number): string => String(Number(Math.abs(n).toFixed(4)));

function isExchanged(is: number, right: number): boolean {
  const [a, b] = [typed(is), typed(right)];
  if (a.length !== b.length) return false;
  const differ = [...a].flatMap((c, i) => (c === b[i] ? [] : [i]));
  const [first, second] = differ;
  return differ.length === 2 && a[first!] === b[second!] && a[second!] === b[first!];
}

/** Keys side by side in the row, where 0 comes after 9, or one above the other on the pad. */
const areNeighbours = (a: string, b: string): boolean =>
  /[^\d]/.test(a + b) ? false : [1, 3, 9].includes(Math.abs(Number(a) - Number(b)));

/** One digit is another whose key lies beside it. */
function isDigitOff(is: number, right: number): boolean {
  const [a, b] = [typed(is), typed(right)];
  const at = [...a].flatMap((c, i) => (c === b[i] ? [] : [i]));
  return a.length === b.length && at.length === 1 && areNeighbours(a[at[0]!]!, b[at[0]!]!);
}

/**
 * The known ways in which a hand makes one number of another, the likeliest first; several where several lead there;
 * "value" where none does. Numbers in the drawing's unit, or degrees.
 * @param others what else the drawing prints
 */
export function slipsOf(is: number, right: number, others: readonly Printed[]): Slip[] {
  const slips: Slip[] = [];
  const put = (kind: SlipKind, isSo: boolean, other?: string) => {
    if (isSo) slips.push({ kind, ...(other !== undefined && { other }) });
  };
  put("twice", isClose(is, 2 * right));
  put("half", isClose(is, right / 2));
  put("exchanged", isExchanged(is, right));
  put("tenfold", isClose(is, 10 * right));
  put("tenth", isClose(is, right / 10));
  put("inch", isClose(is, right * 25.4) || isClose(is, right / 25.4));
  const rest = others.filter((o) => !isClose(o.value, right) && o.value > 0);
  for (const o of rest) put("other-size", isClose(is, o.value), o.text);
  put("digit", isDigitOff(is, right));
  if (!slips.length)
    for (const o of rest) put("sum", isClose(is, right + o.value) || isClose(is, Math.abs(right - o.value)), o.text);
  return slips.length ? slips : [{ kind: "value" }];
}
