import type { AskedFigures } from "@/core/check/exercise/question";
import type { Accepted } from "@/core/check/given/part-file";
import type { Tries } from "@/core/grade/late";
import type { Sheet } from "@/core/sheet/sheet";
import type { Practising } from "@/server/works/practices";
import type { Due } from "../parts/time-left";
import type { OpenedHints } from "./hints";
import type { Opening } from "./store";

/** What a Bench is opened with. */
export interface BenchProps extends Opening {
  readonly heading: string;
  readonly detail: string;
  readonly due?: Due;
  readonly sheet: Sheet | null;
  readonly sheetTrouble: string | null;
  readonly watch: string;
  /** For a student: where the part is handed in. */
  readonly handIn?: string;
  /** Where the part is checked before it is handed in, and what there is of that. */
  readonly practice?: { readonly url: string; readonly start: Practising } | undefined;
  /** What is taken: the part, files in its place, figures alone. */
  readonly accepts?: readonly Accepted[];
  /** Figures that are asked for. */
  readonly figures?: AskedFigures;
  /** What may be opened by whoever is stuck. */
  readonly hints?: { readonly first: OpenedHints; readonly url: string };
  /** For a student's work: where its history is. */
  readonly history?: { readonly url: string };
  readonly lastSubmission?: string | null;
  /** How often it can be handed in. */
  readonly tries?: Tries;
  /** For an instructor: back to the exercise. */
  readonly leaveTo?: string;
}
