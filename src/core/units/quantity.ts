import {
  ANGLES,
  Fault,
  LENGTHS,
  Reader,
  tokens,
  type LengthUnit,
  type Names,
  type QuantityKind,
  type Token,
  type Watcher,
} from "./expression";
import { done, refuse, type Outcome } from "./refusal";

export { isReserved, type LengthUnit, type Names, type QuantityKind, type Value } from "./expression";

/** What is read of a text: decimal commas and typographic minus signs as the language of sizes has them. */
const sourceOf = (text: string | number): string =>
  String(text)
    .replace(/^\s*=/, "")
    .replace(/(\d),(\d)(?![^(]*\))/g, "$1.$2")
    .replace(/[−–]/g, "-");

/**
 * Reads what a person types for a size: `12`, `12 mm`, `2 5/8 in`, `=(94-31)/2`.
 * @param text what was typed; a plain number counts in `unit` (lengths) or degrees (angles)
 * @param names what other sizes are called, for expressions such as `=2*width`
 * @returns millimetres or radians, or a refusal that says what is wrong
 */
export function readQuantity(
  text: string | number,
  kind: QuantityKind,
  unit: LengthUnit,
  names?: Names,
): Outcome<number> {
  if (typeof text === "number" && Math.abs(text) < 1e6)
    return done(text * (kind === "length" ? LENGTHS[unit]! : ANGLES["deg"]!));
  const source = sourceOf(text);
  if (source.length > 200) return refuse("bad-number", "This is too long for a number: use at most 200 characters.");
  const factor = kind === "length" ? LENGTHS[unit]! : ANGLES["deg"]!;
  try {
    const reader = new Reader(tokens(source), kind, factor, names);
    const v = reader.quantity();
    if (kind === "length" ? v.length !== 1 || v.angle !== 0 : v.angle !== 1 || v.length !== 0)
      return refuse("bad-number", kind === "length" ? `“${text}” is not a length.` : `“${text}” is not an angle.`);
    if (!Number.isFinite(v.n) || Math.abs(v.n) > 1e9) return refuse("bad-number", `“${text}” is too large a number.`);
    return done(v.n);
  } catch (e) {
    if (e instanceof Fault) return refuse("bad-number", `“${text}” is no number: ${e.message}.`);
    throw e;
  }
}

/**
 * A length as typed, with the unit written out wherever a plain number counted in it, so that it means the same in a
 * document of another unit. Text that cannot be read is handed back as it is.
 */
export function withUnitWritten(text: string | number, unit: LengthUnit, names?: Names): string | number {
  const source = sourceOf(text);
  // opening and closing texts by place; of those at one place the outer stands outside
  const before = new Map<number, string>();
  const after = new Map<number, string>();
  const open = (token: Token, what: string) => before.set(token.from, what + (before.get(token.from) ?? ""));
  const close = (token: Token, what: string) => after.set(token.to, (after.get(token.to) ?? "") + what);
  try {
    const list = tokens(source);
    const watcher: Watcher = {
      plain(from, to) {
        const first = list[from]!;
        const isNumber = to === from + 1 && first.kind === "number";
        open(first, isNumber ? "" : "(");
        close(list[to - 1]!, isNumber ? ` ${unit}` : `) ${unit}`);
      },
      // rounding goes to whole units: said with the unit it was
      round(from, to, length) {
        const whole = length === 1 ? `(1 ${unit})` : `(1 ${unit})^${length}`;
        open(list[from]!, "(");
        open(list[from + 2]!, "(");
        close(list[to - 2]!, `)/${whole}`);
        close(list[to - 1]!, `*${whole})`);
      },
    };
    new Reader(list, "length", LENGTHS[unit]!, names, watcher).quantity();
  } catch (e) {
    if (e instanceof Fault) return text;
    throw e;
  }
  if (!before.size && !after.size) return text;
  let written = "";
  for (let i = 0; i <= source.length; i++) written += (after.get(i) ?? "") + (before.get(i) ?? "") + (source[i] ?? "");
  const plain = written.trim();
  // several terms, or names: an expression
  return /^[-+]?[\d./ ]+[a-z]*$/.test(plain) ? plain : `=${plain}`;
}

/** A count as typed, such as `6` or `6×`. @returns a whole number from `least` to `most`, or what is wrong with it */
export function readCount(text: string, least: number, most: number): Outcome<number> {
  const found = /^\s*(\d{1,9})\s*[×x]?\s*$/.exec(text);
  const count = Number(found?.[1]);
  if (!found || count < least || count > most)
    return refuse("bad-number", `“${text}” is no count here: type a whole number from ${least} to ${most}.`);
  return done(count);
}

/** Millimetres in the document's unit. */
export const inUnit = (mm: number, unit: LengthUnit): number => mm / LENGTHS[unit]!;

/** A number with at most `digits` decimals and no trailing zeros; thousands parted by thin spaces. */
export function plainNumber(n: number, digits: number): string {
  const fixed = n.toFixed(digits);
  const [whole, rest] = fixed.split(".");
  const decimals = rest?.replace(/0+$/, "") ?? "";
  const grouped = whole!.replace(/\B(?=(\d{3})+(?!\d))/g, "\u202f");
  const text = decimals ? `${grouped}.${decimals}` : grouped;
  return text === "-0" ? "0" : text;
}

/** A length for reading: 3 decimals in mm, 4 in inches. @param mm millimetres */
export const lengthText = (mm: number, unit: LengthUnit, withUnit = true): string =>
  plainNumber(inUnit(mm, unit), unit === "mm" ? 3 : 4) + (withUnit ? ` ${unit}` : "");

/** An angle for reading, in degrees. @param rad radians */
export const angleText = (rad: number): string => `${plainNumber((rad * 180) / Math.PI, 3)}°`;
