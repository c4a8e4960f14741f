import type { Report, ReportPicture } from "@/core/check/check";
import type { LinePictures } from "@/core/sheet/picture";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { FiguresOnly, PartFile } from "@/core/check/given/part-file";
import type { Answers } from "@/core/check/exercise/question";
import type { PartDocument } from "@/core/part/document";
import type { Maker } from "@/core/check/kinds/context";
import type { TriedMistakes } from "@/core/check/mistakes";
import type { Targets } from "@/core/check/exercise/prepare";
import type { Outcome } from "@/core/units/refusal";

/** What a student hands in. */
type Submitted = PartDocument | PartFile | FiguresOnly;

interface CheckTask {
  readonly kind: "check";
  readonly exercise: Exercise;
  readonly document: Submitted;
  readonly answers: Answers;
  readonly by: Maker;
}

/** What a kernel thread can be asked. */
export type ThreadTask =
  | CheckTask
  | { readonly kind: "try-mistakes"; readonly exercise: Exercise }
  | { readonly kind: "prepare"; readonly exercise: Exercise };

export interface ThreadResults {
  check: Outcome<{ report: Report; picture: ReportPicture; lines?: LinePictures | null | undefined }>;
  prepare: Outcome<Targets>;
  "try-mistakes": Outcome<TriedMistakes>;
}

export type FromThread =
  | { readonly kind: "ready" }
  | { readonly kind: "progress"; readonly what: string }
  | { readonly kind: "done"; readonly result: unknown; readonly heapBytes: number }
  | { readonly kind: "threw"; readonly ending: "memory" | "fault"; readonly message: string };
