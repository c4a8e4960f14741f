import type { Report } from "@/core/check/check";
import { checkKind, type Evidence } from "@/core/check/kinds/kinds";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { RubricLine } from "@/core/check/exercise/rubric";
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
  /** Beside what can be had. */
  readonly bonus?: boolean | undefined;
  /** Without it nothing counts. */
  readonly must?: boolean | undefined;
  /** How far off, as a share of what is allowed, where it is just inside or outside: a person should look. */
  readonly near?: number | undefined;
}

export interface Grade {
  readonly points: number;
  readonly of: number;
  readonly lines: readonly GradedLine[];
}

/** Share of a line's points, 0 to 1, by its scoring. @param tolerance that the evidence was judged by */
export function shareOf(line: RubricLine, evidence: Evidence, tolerance: number): number {
  if (evidence.verdict === "met") return 1;
  if (line.scoring.mode === "all" || evidence.verdict === "unknown") return 0;
  const kind = checkKind(evidence.check);
  if (kind.earnsNothing?.(evidence)) return 0;
  if (line.scoring.mode === "share") {
    const items = kind.items?.(evidence);
    return items?.of ? items.right / items.of : 0;
  }
  const { limit } = line.scoring;
  if (limit <= tolerance) return 0;
  return Math.min(1, Math.max(0, (limit - evidence.off) / (limit - tolerance)));
}

const half = (n: number) => Math.round(n * 2) / 2;

/** What a line looks at: of all that was found what it chooses, judged by its rule. */
export function evidenceFor(line: RubricLine, report: Report, exercise: Exercise): Evidence | undefined {
  const found = report.evidence.find((e) => e.check === line.check);
  if (!found) return line.check === "hand" ? { check: "hand", verdict: "unknown", off: 0 } : undefined;
  return (checkKind(found.check).forLine?.(found, line, exercise) ?? found) as Evidence;
}

/** So close to what is allowed, within or beyond, that a person should look: share of the tolerance. */
const NEAR = 0.1;

/** Turns a report into points, in halves, with a sentence for each line. */
export function gradeReport(exercise: Exercise, report: Report): Grade {
  const lines = exercise.rubric.map((line) => gradedLine(line, evidenceFor(line, report, exercise), exercise));
  const counted = lines.filter((l) => !l.bonus);
  return { points: sum(lines, (l) => l.points), of: sum(counted, (l) => l.of), lines };
}

const sum = <T>(list: readonly T[], of: (t: T) => number): number => list.reduce((s, t) => s + of(t), 0);

function gradedLine(line: RubricLine, evidence: Evidence | undefined, exercise: Exercise): GradedLine {
  const { id, check, title, points: of } = line;
  const base = { id, check, title, of, ...(line.bonus && { bonus: true }), ...(line.must && { must: true }) };
  if (!evidence) return { ...base, points: 0, verdict: "unknown", sentence: UNASKED, studentSentence: UNASKED };
  const tolerance = "tolerance" in evidence ? evidence.tolerance : 0;
  const share = shareOf(line, evidence, tolerance);
  // rounding never gives all points for less than all, nor any for nothing
  const points = evidence.verdict === "met" ? of : Math.min(half(of * share), Math.max(0, of - 0.5));
  const ratio = tolerance > 0 ? evidence.off / tolerance : 0;
  return {
    ...base,
    points,
    verdict: evidence.verdict,
    sentence: instructorSentence(evidence, exercise),
    studentSentence: studentSentence(evidence, exercise),
    ...(Math.abs(ratio - 1) <= NEAR && { near: ratio }),
  };
}

const UNASKED = "This was not looked at when the part was checked. A second check does.";
