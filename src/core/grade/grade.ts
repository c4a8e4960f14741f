import type { Report } from "@/core/check/check";
import { checkKind, type Evidence } from "@/core/check/kinds/kinds";
import type { Exercise, RubricLine } from "@/core/check/exercise";
import { instructorSentence, studentSentence } from "./sentences";

/** One line of the rubric with the points its evidence earns. */
export interface GradedLine {
  readonly id: string;
  /** Which kind of check; left out in grades of before. */
  readonly check?: Evidence["check"] | undefined;
  readonly title: string;
  readonly points: number;
  readonly of: number;
  readonly verdict: Evidence["verdict"];
  /** For the instructor: what was measured against what. */
  readonly sentence: string;
  /** For the student: never more of the reference than the Sheet prints. */
  readonly studentSentence: string;
}

export interface Grade {
  readonly points: number;
  readonly of: number;
  readonly lines: readonly GradedLine[];
}

/** Share of a line's points, 0 to 1: all inside the tolerance, none at the limit, linear between. */
export function shareOf(line: RubricLine, evidence: Evidence, tolerance: number): number {
  if (evidence.verdict === "met") return 1;
  if (line.scoring.mode === "all" || evidence.verdict === "unknown") return 0;
  if (checkKind(evidence.check).earnsNothing?.(evidence)) return 0;
  const { limit } = line.scoring;
  if (limit <= tolerance) return 0;
  return Math.min(1, Math.max(0, (limit - evidence.off) / (limit - tolerance)));
}

const half = (n: number) => Math.round(n * 2) / 2;

/** Turns a report into points, in halves, with a sentence for each line. */
export function gradeReport(exercise: Exercise, report: Report): Grade {
  const lines = exercise.rubric.map((line): GradedLine => {
    const evidence = report.evidence.find((e) => e.check === line.check)!;
    const tolerance = "tolerance" in evidence ? evidence.tolerance : 0;
    const share = shareOf(line, evidence, tolerance);
    // rounding never gives all points for less than all, nor any for nothing
    const points = share === 1 ? line.points : Math.min(half(line.points * share), Math.max(0, line.points - 0.5));
    return {
      id: line.id,
      check: line.check,
      title: line.title,
      points,
      of: line.points,
      verdict: evidence.verdict,
      sentence: instructorSentence(evidence, exercise),
      studentSentence: studentSentence(evidence, exercise),
    };
  });
  return { points: lines.reduce((s, l) => s + l.points, 0), of: lines.reduce((s, l) => s + l.of, 0), lines };
}
