import { HALF_WAY, NOTHING } from "./tolerance";

export type LengthUnit = "mm" | "in";
export type QuantityKind = "length" | "angle";

/** Millimetres per unit; the inch is exact by definition (ISO 31 / NIST SP 811). */
export const LENGTHS: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  '"': 25.4,
  ft: 304.8,
  "'": 304.8,
  um: 0.001,
  µm: 0.001,
};
export const ANGLES: Record<string, number> = { deg: Math.PI / 180, "°": Math.PI / 180, rad: 1 };

/** A number with the power of length and of angle it carries. A plain number has both 0. */
export interface Value {
  readonly n: number;
  readonly length: number;
  readonly angle: number;
}

/** What is wrong with a text that should be a number. */
export class Fault extends Error {}

/** What other sizes are called: a value, a sentence that says why it has none, or undefined for no such name. */
export type Names = (name: string) => Value | string | undefined;

/** Words that mean something already and cannot name a size. */
const FUNCTIONS = ["sqrt", "sin", "cos", "tan", "min", "max", "round"] as const;
export const isReserved = (name: string): boolean =>
  LENGTHS[name.toLowerCase()] !== undefined ||
  ANGLES[name.toLowerCase()] !== undefined ||
  name.toLowerCase() === "pi" ||
  (FUNCTIONS as readonly string[]).includes(name.toLowerCase());

/** A fraction before a unit, a whole and a fraction, a number, a word or mark, a sign: one group of captures each. */
const TOKEN = new RegExp(
  [
    /(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)(?=\s*[A-Za-zµ"'°])/,
    /(\d+)\s+(\d+)\s*\/\s*(\d+)/,
    /(\d+\.?\d*(?:[eE][+-]?\d+)?|\.\d+(?:[eE][+-]?\d+)?)/,
    /([A-Za-zµ][A-Za-z0-9_]*|["'°])/,
    /([-+*/^(),;])/,
  ]
    .map((part) => part.source)
    .join("|")
    .replace(/^(.*)$/, "\\s*(?:$1)"),
  "y",
);

/** `from` and `to`: where it stands in the text. */
export type Token = (
  | { readonly kind: "number"; readonly n: number }
  | { readonly kind: "word"; readonly text: string }
  | { readonly kind: "sign"; readonly text: string }
) & { readonly from: number; readonly to: number };

/** Cuts a text into numbers, words and signs. */
export function tokens(text: string): Token[] {
  const list: Token[] = [];
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < text.length) {
    const at = TOKEN.lastIndex;
    if (/^\s*$/.test(text.slice(at))) break;
    const match = TOKEN.exec(text);
    if (!match) throw new Fault(`“${text.slice(at).trim()[0]}” is not part of a number`);
    const to = TOKEN.lastIndex;
    const from = at + (match[0].length - match[0].trimStart().length);
    // a fraction right before a unit is one number: 5/8 in, not 5/(8 in)
    const [whole, over, under] =
      match[2] !== undefined ? [match[1] ?? 0, match[2], match[3]] : [match[4], match[5], match[6]];
    if (over !== undefined) {
      if (Number(under) === 0) throw new Fault("a fraction over 0 has no value");
      list.push({ kind: "number", n: Number(whole) + Number(over) / Number(under), from, to });
    } else if (match[7] !== undefined) list.push({ kind: "number", n: Number(match[7]), from, to });
    else if (match[8] !== undefined) list.push({ kind: "word", text: match[8], from, to });
    else list.push({ kind: "sign", text: match[9]!, from, to });
  }
  return list;
}

const isWord = (t: Token | undefined): t is Token & { kind: "word" } => t?.kind === "word";
const isSign = (t: Token | undefined, text: string) => t?.kind === "sign" && t.text === text;

/** Told while reading: what leans on the unit at work. Places are numbers of tokens, the end left out. */
export interface Watcher {
  /** A plain stretch that counts in the unit. */
  plain(from: number, to: number): void;
  /** A call of `round` on a quantity of this power of length, brackets and all. */
  round(from: number, to: number, length: number): void;
}

/** Recursive descent over + - * / ^ ( ) and units; a plain number added to a length counts in the default unit. */
export class Reader {
  private at = 0;
  private depth = 0;
  constructor(
    private readonly list: Token[],
    private readonly kind: QuantityKind,
    private readonly unit: number,
    private readonly names?: Names,
    private readonly watcher?: Watcher,
  ) {}

  read(): Value {
    const v = this.sum();
    if (this.at < this.list.length) throw new Fault(`something is left over after the number`);
    return v;
  }
  /** The whole as a quantity: a plain number counts in the unit. */
  quantity(): Value {
    return this.asQuantity(this.read(), 0, this.list.length);
  }
  private asQuantity(v: Value, from: number, to: number): Value {
    if (v.length || v.angle) return v;
    this.watcher?.plain(from, to);
    return this.kind === "length"
      ? { n: v.n * this.unit, length: 1, angle: 0 }
      : { n: v.n * this.unit, length: 0, angle: 1 };
  }
  private sum(): Value {
    const from = this.at;
    let left = this.product();
    for (;;) {
      const sign = this.at;
      const token = this.list[sign];
      if (!isSign(token, "+") && !isSign(token, "-")) return left;
      this.at++;
      let right = this.product();
      if (left.length !== right.length || left.angle !== right.angle)
        [left, right] = [this.asQuantity(left, from, sign), this.asQuantity(right, sign + 1, this.at)];
      if (left.length !== right.length || left.angle !== right.angle)
        throw new Fault("lengths and angles cannot be added");
      left = { ...left, n: isSign(token, "+") ? left.n + right.n : left.n - right.n };
    }
  }
  private product(): Value {
    let left = this.power();
    for (;;) {
      const t = this.list[this.at];
      const times = isSign(t, "*");
      if (!times && !isSign(t, "/")) return left;
      this.at++;
      const right = this.power();
      if (!times && right.n === 0) throw new Fault("a division by 0 has no value");
      const s = times ? 1 : -1;
      left = {
        n: times ? left.n * right.n : left.n / right.n,
        length: left.length + s * right.length,
        angle: left.angle + s * right.angle,
      };
    }
  }
  private power(): Value {
    const base = this.unary();
    if (!isSign(this.list[this.at], "^")) return base;
    this.at++;
    const e = this.power();
    if (e.length || e.angle) throw new Fault("an exponent must be a plain number");
    return { n: base.n ** e.n, length: base.length * e.n, angle: base.angle * e.n };
  }
  private unary(): Value {
    if (++this.depth > 200) throw new Fault("the expression is nested too deeply");
    try {
      const t = this.list[this.at];
      if (isSign(t, "-") || isSign(t, "+")) {
        this.at++;
        const v = this.unary();
        return isSign(t, "-") ? { ...v, n: -v.n } : v;
      }
      return this.atom();
    } finally {
      this.depth--;
    }
  }
  private atom(): Value {
    const t = this.list[this.at];
    let v: Value;
    if (t?.kind === "number") {
      this.at++;
      v = { n: t.n, length: 0, angle: 0 };
    } else if (isSign(t, "(")) {
      this.at++;
      v = this.sum();
      if (!isSign(this.list[this.at], ")")) throw new Fault("a bracket is not closed");
      this.at++;
    } else if (isWord(t)) {
      this.at++;
      v = this.word(t.text);
    } else throw new Fault(t ? "a number is missing" : "a number is missing at the end");
    const w = this.list[this.at];
    if (t && isWord(w) && (t.kind === "number" || t.kind === "sign")) {
      this.at++;
      const name = w.text.toLowerCase();
      if (LENGTHS[name] !== undefined) v = { n: v.n * LENGTHS[name], length: v.length + 1, angle: v.angle };
      else if (ANGLES[name] !== undefined) v = { n: v.n * ANGLES[name], length: v.length, angle: v.angle + 1 };
      else throw new Fault(`“${w.text}” is not a unit known here (mm, cm, m, in, ft, deg, rad)`);
    }
    return v;
  }
  /** pi, a function of what follows in brackets, or the name of another size. */
  private word(text: string): Value {
    const name = text.toLowerCase();
    if (name === "pi") return { n: Math.PI, length: 0, angle: 0 };
    if ((FUNCTIONS as readonly string[]).includes(name)) return this.call(name as (typeof FUNCTIONS)[number]);
    const known = this.names?.(text);
    if (typeof known === "string") throw new Fault(known);
    if (!known)
      throw new Fault(
        LENGTHS[name] !== undefined || ANGLES[name] !== undefined
          ? "a number is missing before the unit"
          : `there is no size called “${text}” here`,
      );
    return known;
  }
  private call(name: (typeof FUNCTIONS)[number]): Value {
    const word = this.at - 1;
    if (!isSign(this.list[this.at], "(")) throw new Fault(`${name} needs brackets`);
    const given: Value[] = [];
    const spans: [number, number][] = [];
    do {
      const from = ++this.at;
      given.push(this.sum());
      spans.push([from, this.at]);
    } while (isSign(this.list[this.at], ";") || isSign(this.list[this.at], ","));
    if (!isSign(this.list[this.at], ")")) throw new Fault("a bracket is not closed");
    this.at++;
    const [a] = given as [Value];
    if (name !== "min" && name !== "max" && given.length > 1) throw new Fault(`${name} takes one number`);
    switch (name) {
      case "min":
      case "max": {
        const same = given.every((g) => g.length === a.length && g.angle === a.angle)
          ? given
          : given.map((g, i) => this.asQuantity(g, ...spans[i]!));
        if (same.some((g) => g.length !== same[0]!.length || g.angle !== same[0]!.angle))
          throw new Fault("lengths and angles cannot be compared");
        return { ...same[0]!, n: Math[name](...same.map((g) => g.n)) };
      }
      case "round": {
        // a length is rounded in the unit at work, an area in its square, what is one through a length likewise
        const k = this.unit ** (a.length || a.angle);
        if (a.length) this.watcher?.round(word, this.at, a.length);
        return { ...a, n: nearestWhole(a.n / k) * k };
      }
      case "sqrt":
        if (a.n < 0) throw new Fault("a negative number has no square root");
        return { n: Math.sqrt(a.n), length: a.length / 2, angle: a.angle / 2 };
      default: {
        if (a.length) throw new Fault(`${name} takes an angle`);
        // a plain number is in degrees, as everywhere
        const t = a.angle ? a.n : a.n * ANGLES["deg"]!;
        const n = Math[name](t);
        if (Math.abs(n) > 1e12) throw new Fault(`${name} has no value there`);
        return { n: Math.abs(n) < NOTHING ? 0 : n, length: 0, angle: 0 };
      }
    }
  }
}

/** Halves are rounded up, also those that the way of computing them has left a hair short. */
const nearestWhole = (n: number): number => Math.round(n + HALF_WAY * Math.max(1, Math.abs(n)));
