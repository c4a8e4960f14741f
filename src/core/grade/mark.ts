import type { Decided } from "./decision";
import type { Grade, GradedLine } from "./grade";
import { pointsAfter, spanText, type DueRules } from "./late";

/** A line of the rubric after people have looked. */
export interface MarkedLine extends GradedLine {
  /** What the program gives. */
  readonly machine: number;
  /** Other points by a person, and why; `since`: the program's own changed after that, by a second check. */
  readonly overruled?:
    { readonly reason: string; readonly by: string; readonly at: string; readonly isOlder: boolean } | undefined;
}

/** What takes points off the whole, as a line of its own. */
export interface Deduction {
  readonly why: "late" | "must";
  readonly title: string;
  /** Negative. */
  readonly points: number;
  readonly sentence: string;
}

/** Why a person has to look, what is most urgent first. */
export const NEEDS = ["failed", "unknown", "question", "hand", "near", "changed"] as const;
export type Need = (typeof NEEDS)[number];

/** The grade of a submission: by what was found, what was decided, and when it came. */
export interface Mark {
  readonly points: number;
  readonly of: number;
  readonly lines: readonly MarkedLine[];
  readonly deductions: readonly Deduction[];
  readonly needs: readonly Need[];
}

/** What a mark is made of beside the program's grade. */
export interface MarkInput {
  /** The program's own; undefined where it could not be checked. */
  readonly grade: Grade | undefined;
  /** When it was checked last, ISO. */
  readonly checkedAt: string | undefined;
  readonly decided: Decided;
  readonly rules: DueRules;
  readonly lateSeconds: number;
  /** The points that were given back last; undefined where none were. */
  readonly returned: number | undefined;
}

/** Points, what they are made of, and what is open: a pure function, the same in the browser and on the server. */
export function markOf({ grade, checkedAt, decided, rules, lateSeconds, returned }: MarkInput): Mark {
  const lines = (grade?.lines ?? []).map((l) => markedLine(l, decided, checkedAt));
  const sum = lines.reduce((s, l) => s + l.points, 0);
  const lost = lines.filter((l) => l.must && !isWhole(l));
  const deductions: Deduction[] = [];
  if (lost.length && sum > 0) {
    const sentence = `Without ${lost.map((l) => `“${l.title}”`).join(" and ")} nothing else counts.`;
    deductions.push({ why: "must", title: "Must be met", points: -sum, sentence });
  }
  const before = lost.length ? 0 : sum;
  const points = pointsAfter(rules, { points: before }, lateSeconds);
  if (points < before) {
    const sentence = `Handed in ${spanText(lateSeconds)} after it was due.`;
    deductions.push({ why: "late", title: "Late", points: points - before, sentence });
  }
  const needs = needsOf(lines, grade !== undefined, decided, checkedAt, points, returned);
  return { points, of: grade?.of ?? 0, lines, deductions, needs };
}

const isWhole = (l: MarkedLine) => (l.overruled ? l.points >= l.of : l.verdict === "met");

function markedLine(line: GradedLine, { overrules }: Decided, checkedAt: string | undefined): MarkedLine {
  const found = overrules.get(line.id);
  if (!found) return { ...line, machine: line.points };
  const { reason, by, at } = found;
  // the rubric may have changed since: nobody gets more than there is
  const points = Math.min(found.points, line.of);
  const verdict = line.check === "hand" && line.of > 0 ? (points >= line.of ? "met" : "missed") : line.verdict;
  const isOlder = checkedAt !== undefined && checkedAt > at;
  return { ...line, points, verdict, machine: line.points, overruled: { reason, by, at, isOlder } };
}

function needsOf(
  lines: readonly MarkedLine[],
  isChecked: boolean,
  { turn, acceptedAt }: Decided,
  checkedAt: string | undefined,
  points: number,
  returned: number | undefined,
): Need[] {
  // accepted before the newest check, it is looked at again
  const isAccepted = acceptedAt !== undefined && (checkedAt === undefined || acceptedAt >= checkedAt);
  const left = lines.filter((l) => !l.overruled);
  const found: Record<Need, boolean> = {
    failed: !isChecked && !isAccepted,
    unknown: !isAccepted && left.some((l) => l.verdict === "unknown" && l.check !== "hand" && l.of > 0),
    question: turn === "instructor",
    hand: left.some((l) => l.check === "hand" && l.of > 0),
    near: !isAccepted && left.some((l) => l.near !== undefined && l.of > 0),
    changed: returned !== undefined && returned !== points,
  };
  return NEEDS.filter((n) => found[n]);
}
