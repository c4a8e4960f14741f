import type { Exercise } from "@/core/check/exercise/exercise";
import type { TriedMistakes } from "@/core/check/mistakes";
import { gradeReport, type Grade } from "./grade";

/** What a rubric gives: for the reference itself, and for parts with one typical mistake. */
export interface Preview {
  readonly reference: Grade;
  readonly mistakes: readonly { readonly label: string; readonly grade: Grade }[];
}

/** Marks what was tried by an exercise's rubric. */
export const previewOf = (exercise: Exercise, tried: TriedMistakes): Preview => ({
  reference: gradeReport(exercise, tried.reference),
  mistakes: tried.mistakes.map(({ label, report }) => ({ label, grade: gradeReport(exercise, report) })),
});
