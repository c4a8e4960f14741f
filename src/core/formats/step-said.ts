/** What a STEP file says of its part beside the shape. */
export interface StepSaid {
  /** What the file calls the part, where it calls it anything. */
  readonly name?: string;
  /** How many different colours it holds. */
  readonly colours: number;
}

/** Names that programs write where nobody gave one. */
const NAMELESS = /^(none|noname|unnamed|part|shape|open cascade.*|\s*)$/i;

/**
 * Reads the name and the colours of a part off the text of a STEP file (ISO 10303-21; PRODUCT and COLOUR_RGB of
 * ISO 10303-41 and -46): the body is read without them.
 */
export function saidInStep(text: string): StepSaid {
  const products = [...text.matchAll(/\bPRODUCT\s*\(\s*'((?:[^']|'')*)'\s*,\s*'((?:[^']|'')*)'/g)],
    names = products.flatMap(([, id, called]) => [called!, id!]).map(fromStepString);
  const name = names.find((each) => !NAMELESS.test(each));
  const shades = [...text.matchAll(/\bCOLOUR_RGB\s*\(\s*'(?:[^']|'')*'\s*,([^)]*)\)/g)].map(([, parts]) =>
    parts!
      .split(",")
      .map((part) => Number(part).toFixed(3))
      .join(),
  );
  const named = [...text.matchAll(/\bDRAUGHTING_PRE_DEFINED_COLOUR\s*\(\s*'((?:[^']|'')*)'/g)].map(
    ([, called]) => called!,
  );
  return { ...(name && { name }), colours: new Set([...shades, ...named]).size };
}

/** Signs that stand for others in the text of a STEP file; from left to right, a doubled one first. */
const SIGNS = /''|\\\\|\\X2\\((?:[0-9A-F]{4})+)\\X0\\|\\X4\\((?:[0-9A-F]{8})+)\\X0\\|\\X\\([0-9A-F]{2})|\\S\\(.)/gi;

/** Text as a STEP file holds it, read back (ISO 10303-21, 6.4.3): doubled signs, and letters by their numbers. */
export const fromStepString = (text: string): string =>
  text.replace(SIGNS, (sign: string, pairs?: string, quads?: string, byte?: string, upper?: string) => {
    if (pairs !== undefined) return lettersOf(pairs, 4);
    if (quads !== undefined) return lettersOf(quads, 8);
    if (byte !== undefined) return lettersOf(byte, 2);
    return upper === undefined ? sign[0]! : String.fromCharCode(upper.charCodeAt(0) + 128);
  });

/** Letters by their numbers in so many hexadecimal digits each. */
function lettersOf(digits: string, wide: number): string {
  const codes = Array.from({ length: digits.length / wide }, (_, i) =>
    parseInt(digits.slice(i * wide, (i + 1) * wide), 16),
  );
  return codes.map((code) => (code <= 0x10ffff ? String.fromCodePoint(code) : "")).join("");
}
