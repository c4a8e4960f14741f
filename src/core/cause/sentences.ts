import { begun } from "@/core/naming/words";
import type { AddMend, Cause, LeaveMend, Mend, NumberMend, TurnMend, TurnOption, WholeMend } from "./cause";
import type { Slip, SlipKind } from "./slips";

/** A printed size and what stands on the part in its place, as both are lettered. */
interface Said {
  readonly printed: string;
  readonly measured: string;
  readonly other: string;
}

/** A size lettered as a diameter or as a radius, whatever stands before it. */
const isDiameter = (text: string) => /(?:^|\s)⌀/.test(text);
const isRadius = (text: string) => /(?:^|\s)R\d/.test(text);

/** How a slip is told, by its kind. */
const SLIPS: Readonly<Record<SlipKind, (s: Said) => string>> = {
  twice: ({ printed, measured }) =>
    isDiameter(printed) ? `${printed} was taken for a radius` : `${measured} for ${printed}: twice as much`,
  half: ({ printed, measured }) =>
    isRadius(printed) ? `${printed} was taken for a diameter` : `${measured} for ${printed}: half of it`,
  exchanged: ({ printed, measured }) => `digits exchanged: ${measured} for ${printed}`,
  digit: ({ printed, measured }) => `one digit off: ${measured} for ${printed}`,
  tenfold: ({ printed, measured }) => `ten times too large: ${measured} for ${printed}`,
  tenth: ({ printed, measured }) => `ten times too small: ${measured} for ${printed}`,
  inch: ({ printed, measured }) => `another unit: ${measured} for ${printed}`,
  "other-size": ({ printed, other }) => `the ${other} was taken for the ${printed}`,
  sum: ({ printed, measured, other }) => `${measured} for ${printed}: the ${other} is counted in, or left out`,
  value: ({ printed, measured }) => `${measured} for ${printed}`,
};

const TURNS: Readonly<Record<TurnOption, string>> = {
  side: "goes to the wrong side",
  "through-for-depth": "goes to a depth and has to go through",
  "depth-for-through": "goes through and has to end at a depth",
  "add-for-cut": "cuts and has to add",
  "cut-for-add": "adds and has to cut",
  join: "stands as a body of its own and has to be joined",
  "both-for-one": "goes to one side and has to go both ways",
  "one-for-both": "goes both ways and has to go to one side",
  "first-and-second": "has its first and second distance exchanged",
  count: "has another count",
};

const WHOLES: Readonly<Record<WholeMend["what"], string>> = {
  mirrored: "The part is built as its mirror image.",
  unit: "The part was typed in the other unit: all of it is 25.4 times too large or too small.",
  joined: "The part is right, but not joined to one body.",
};

type Tellers = { readonly [K in Mend["do"]]: (m: Extract<Mend, { do: K }>) => string };

/** A mend in a sentence for an instructor, by what it does. */
const TELL: Tellers = {
  number: (m: NumberMend) => `${begun(slipText(m))}. In ${m.called}: ${m.is}; with ${m.right} it is as drawn.`,
  turn: (m: TurnMend) => `${m.called} ${TURNS[m.option]}.`,
  "leave-out": (m: LeaveMend) => `${m.called} is too much.`,
  add: (m: AddMend) => `Missing: ${m.called}.`,
  whole: (m: WholeMend) => WHOLES[m.what],
};

const textOf = ({ kind, other = "" }: Slip, m: NumberMend): string =>
  SLIPS[kind]({ printed: m.size.text, measured: m.size.measured, other });

/** How a number may have come about, in half a sentence: the likeliest, or two that make the very same part. */
function slipText(m: NumberMend): string {
  const [first, second] = [...new Set(m.slips.map((s) => textOf(s, m)))];
  return second ? `${first}, or ${second}` : first!;
}

const told = (mends: readonly Mend[]): string =>
  mends.map((m) => (TELL[m.do] as (x: Mend) => string)(m)).join(" And: ");

/** What is known of the cause, in sentences for an instructor; nothing where there is nothing to say. */
export function causeText(cause: Cause): string {
  if (cause.found === "none") return "";
  if (cause.found === "unknown")
    return cause.spent ? "The cause was not found in the time there is." : "The cause is not known.";
  if (cause.found === "partly") return `${told(cause.mends)} Something else is wrong too.`;
  return [...new Set(cause.or.map(told))].join(" Or: ");
}
