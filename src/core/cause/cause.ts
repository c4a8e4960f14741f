import type { Slip } from "./slips";

/** A number of the student's own part set to another value. */
export interface NumberMend {
  readonly do: "number";
  /** The step it stands in, by its id; none: a parameter. */
  readonly step?: string;
  /** As lists of numbers call it. */
  readonly called: string;
  /** As it is typed in the part, and as it has to be: "99 mm". */
  readonly is: string;
  readonly right: string;
  /** The printed size that is otherwise on the part, and what it is there. */
  readonly size: { readonly id: string; readonly text: string; readonly measured: string };
  /** How it may have come about. */
  readonly slips: readonly Slip[];
}

/** An option of a step of the student's own part turned. */
export interface TurnMend {
  readonly do: "turn";
  readonly step: string;
  readonly called: string;
  readonly option: TurnOption;
}
export type TurnOption =
  | "side"
  | "through-for-depth"
  | "depth-for-through"
  | "add-for-cut"
  | "cut-for-add"
  | "join"
  | "both-for-one"
  | "one-for-both"
  | "first-and-second"
  | "count";

/** A step of the student's own part that is too much. */
export interface LeaveMend {
  readonly do: "leave-out";
  readonly step: string;
  readonly called: string;
}

/** A step of the reference that the part has nothing of. */
export interface AddMend {
  readonly do: "add";
  /** What the drawing shows there: "the 4 holes ⌀6.6". */
  readonly called: string;
}

/** What is wrong with the whole, with no step of its own. */
export interface WholeMend {
  readonly do: "whole";
  readonly what: "mirrored" | "unit" | "joined";
}

export type Mend = NumberMend | TurnMend | LeaveMend | AddMend | WholeMend;

/**
 * What makes a part wrong, as far as it is known.
 * certain: the part so changed was built and is the reference; where several changes make it so, each is one of `or`.
 * partly: the changes take faults away, but something else is wrong too.
 */
export type Cause =
  | { readonly found: "certain"; readonly or: readonly (readonly Mend[])[] }
  | { readonly found: "partly"; readonly mends: readonly Mend[]; readonly spent?: boolean }
  /** Its shape is the reference's. */
  | { readonly found: "none" }
  | { readonly found: "unknown"; readonly spent?: boolean };
