import { z } from "zod";

/** What no text can hold: NUL, half of a surrogate pair, and the two code points that are no characters. */
const UNFIT = /[\0\uFFFE\uFFFF]|\p{Surrogate}/u;
/** What slips in with pasted text and means nothing here. Tabs and ends of lines stay. */
const SLIPPED_IN = /(?![\t\n\r])\p{Cc}/gu;
/** What programs for slides and letters write for an end of line. */
const LINE_ENDS = /\r\n?|[\v\f\u0085\u2028\u2029]/g;

/** Whether a text can be kept: the database, a drawing and a file can all hold it. */
export const isFit = (text: string): boolean => !UNFIT.test(text);

/** A text as it is written down: one kind of line end, and no other control character than tab. */
export const tidy = (text: string): string => text.replace(LINE_ENDS, "\n").replace(SLIPPED_IN, "");

/** A text as a file of any kind can hold it, wherever it came from: what is unfit is shown as the sign for that. */
export const fit = (text: string): string => tidy(text.replace(new RegExp(UNFIT, "gu"), "\uFFFD"));

/** The same on one line. */
export const printable = (text: string): string => fit(text).replace(/[\n\t]/g, " ");

/** At most so many code units of a text, and no character halved. */
export const cut = (text: string, most: number): string => text.slice(0, most).replace(/\p{Surrogate}$/u, "");

/**
 * The schema of every text that comes from outside, to be bounded by whoever takes it: `plainText().max(80)`. Refuses
 * what cannot be kept, and takes out what nobody typed on purpose.
 */
export const plainText = () =>
  z
    .string()
    .refine(isFit, { error: "holds a character that cannot be kept: type it anew", abort: true })
    .overwrite(tidy);
